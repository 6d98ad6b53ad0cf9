<script lang="ts">
  import { hourLines, placeOn, type MinuteSpan } from '$lib/lanes/spans';
  import LaneSurface from '$lib/lanes/LaneSurface.svelte';
  import { clockMinute, longDate } from '$lib/time/format';
  import { say, sayCount } from '$lib/words/say.svelte';
  import type { AskedState } from './AskedState.svelte';

  let { asked, date }: { asked: AskedState; date: string } = $props();

  const { axis } = $derived(asked);
  const taken = $derived(asked.taken.get(date) ?? []);
  const own = $derived(asked.stretches.filter((stretch) => stretch.date === date));
  const pieces = $derived(
    (asked.marked[date] ?? []).map((span) => ({
      key: String(span.from),
      label: say('asked.suits'),
      tone: 'pick' as const,
      ...span,
    })),
  );
  // Of a long day every other hour would stand too close on a phone.
  const every = $derived(axis.to - axis.from > 12 * 60 ? 180 : 120);

  const between = (from: number, to: number): string =>
    say('asked.between', { from: clockMinute(from), to: clockMinute(to) });

  const words = {
    between,
    marking: (from: number): string => say('asked.marking', { from: clockMinute(from) }),
    erase: (what: string): string => say('asked.remove', { what }),
    minute: clockMinute,
  };

  function fitsIn(stretch: { start: string; end: string }): string | undefined {
    const count = asked.fits.get(stretch.start + stretch.end);
    if (count === undefined) return undefined;
    return count === 0 ? say('asked.fits-none') : sayCount(count, 'asked.fits');
  }

  function titleAt(minute: number): string {
    return taken.find((one) => one.from <= minute && minute < one.to)?.title ?? '';
  }
</script>

<section class="border-t border-line py-2 md:grid md:grid-cols-[176px_1fr] md:gap-x-3" aria-label={longDate(date)}>
  <h3 class="text-body font-semibold md:pt-1.5">{longDate(date)}</h3>
  <div>
    <div class="relative mx-1 h-4 text-tiny text-muted" aria-hidden="true">
      {#each hourLines(axis, every).filter((minute) => minute < axis.to) as minute (minute)}<span
          class="absolute"
          style={placeOn(axis, minute, minute)}>{clockMinute(minute)}</span
        >{/each}
    </div>
    <div class="relative mx-1 h-11 rounded-lg bg-lane">
      <div class="absolute inset-0" aria-hidden="true">
        {#each hourLines(axis, 60) as minute (minute)}<span
            class="absolute inset-y-0 border-l border-line"
            style={placeOn(axis, minute, minute)}
          ></span>{/each}
      </div>
      <LaneSurface
        id={date}
        label={say('asked.lane', { day: longDate(date) })}
        {axis}
        {pieces}
        {words}
        describe={titleAt}
        onpaint={(span: MinuteSpan) => asked.paint(date, span)}
        onpress={(minute: number) => asked.press(date, minute)}
        onchange={(key: string, span: MinuteSpan, lane: string) => asked.change(date, Number(key), span, lane)}
        onerase={(key: string) => asked.remove(date, Number(key))}
      >
        <ul class="absolute inset-0">
          {#each taken as one, at (at)}<li
              class="hatched pointer-events-none absolute inset-y-[2px] overflow-hidden rounded-[5px] border border-edge px-1 text-tiny whitespace-nowrap text-muted"
              style={placeOn(axis, one.from, one.to)}
            >
              {one.title}
            </li>{/each}
        </ul>
      </LaneSurface>
    </div>
    {#if own.length > 0}
      <ul class="mx-1 mt-1 flex flex-wrap gap-x-4">
        {#each own as stretch (stretch.start)}
          {@const text = between(stretch.span.from, stretch.span.to)}
          {@const fits = fitsIn(stretch)}
          <li class="flex items-center gap-2">
            <span class="font-semibold">{text}</span>
            {#if fits}<span class="text-sm text-muted">{fits}</span>{/if}
            <button
              type="button"
              aria-label={say('asked.remove', { what: `${longDate(date)}, ${text}` })}
              class="h-11 w-11 rounded-full text-xl text-muted hover:bg-lane md:h-8 md:w-8"
              onclick={() => asked.remove(date, stretch.span.from)}>×</button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</section>
