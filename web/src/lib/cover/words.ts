import type { Schemas } from '$lib/api/client';
import { counted, timeOf } from '$lib/time/format';

/** What the plan comes to. */
export function sumOf(plan: Pick<Schemas['CoverView'], 'lines' | 'isBest'>): string {
  if (plan.lines.length === 0) return 'None of them is chosen.';
  const left = plan.lines.filter((line) => line.after === null).length;
  const kept = plan.lines.length - left;
  const parts = [
    kept > 0 ? `${kept === 1 ? '1 stays' : `${kept} stay`} at ${kept === 1 ? 'its' : 'their'} time` : '',
    left > 0 ? `${left === 1 ? '1 is' : `${left} are`} offered new times` : '',
  ].filter((part) => part !== '');
  const best = plan.isBest ? '' : ' There may be a better plan; this is the best that was found.';
  return `${counted(plan.lines.length, 'booking', 'bookings')}: ${parts.join(', ')}.${best}`;
}

/** Why nobody can take it. */
export function whyInWords(why: Schemas['CoverWhyView'], lines: Schemas['CoverLineView'][], zone: string): string {
  const name = why.name ?? '';
  const other = lines.find((line) => line.session === why.session);
  const words: Record<Schemas['CoverObstacleKind'], string> = {
    busy: `${name}’s calendar is busy`,
    booked: `${name} is booked`,
    hours: `it is outside ${name}’s hours`,
    needed: other
      ? `${name} is needed for ${other.guests[0] ?? other.page} at ${timeOf(other.start, zone)}`
      : `${name} is needed for another`,
    nobody: 'nobody else has this seat, or lets you book their time',
    few: 'fewer are free than it takes',
  };
  return words[why.kind];
}

/** All of it as a sentence. */
export function whyAll(line: Schemas['CoverLineView'], lines: Schemas['CoverLineView'][], zone: string): string {
  const said = line.why.map((why) => whyInWords(why, lines, zone)).join(', ');
  return said === '' ? '' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
}

/** What the main button does. */
export function pressOf(plan: Pick<Schemas['CoverView'], 'lines'>): string {
  const left = plan.lines.filter((line) => line.after === null).length;
  const kept = plan.lines.length - left;
  if (left === 0) return `Give ${kept} to others`;
  return kept === 0 ? `Offer ${left} anew` : `Give ${kept} to others, offer ${left} anew`;
}

/** What was done. */
export function doneInWords(done: Schemas['CoverDone'], waits: boolean): string {
  const parts = [
    done.kept > 0 ? `${counted(done.kept, 'booking', 'bookings')} went to others` : '',
    done.left > 0 ? `${done.left} ${done.left === 1 ? 'is' : 'are'} offered new times` : '',
  ].filter((part) => part !== '');
  const letters =
    done.letters === 0
      ? ''
      : waits
        ? ` ${counted(done.letters, 'letter waits', 'letters wait')} until it can’t be taken back any more.`
        : ` ${counted(done.letters, 'letter goes', 'letters go')} out now.`;
  return `Done: ${parts.join(', ')}.${letters}`;
}
