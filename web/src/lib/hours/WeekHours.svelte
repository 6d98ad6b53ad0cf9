<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Input } from 'flowbite-svelte';
  import LaneSurface from '$lib/lanes/LaneSurface.svelte';
  import { hourLines, placeOn, type MinuteSpan } from '$lib/lanes/spans';
  import PasteHours from './PasteHours.svelte';
  import { readDay } from './typed';
  import { axisOfWeek, dayInWords, openTimesOf, spansOf, weekdays, type Week, type WeekdayKey } from './week';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    week: Week;
    /** The days whose typed times can't be read, so that nothing is saved without them. */
    unread?: WeekdayKey[];
    /** What the server found to mend in a day's times. */
    mendsOf?: (day: WeekdayKey) => string[];
  }

  let { week = $bindable(), unread = $bindable([]), mendsOf = () => [] }: Props = $props();

  let drafts = $state<Partial<Record<WeekdayKey, { text: string; mend: string }>>>({});
  let copying = $state<WeekdayKey | undefined>(undefined);
  let pasting = $state(false);

  const axis = $derived(axisOfWeek(week));
  const pieces = $derived(hourLines(axis, axis.to - axis.from > 14 * 60 ? 180 : 120));

  function set(day: WeekdayKey, spans: readonly MinuteSpan[]): void {
    forget(day);
    week[day] = openTimesOf(spans);
  }

  function forget(day: WeekdayKey): void {
    delete drafts[day];
    unread = unread.filter((other) => other !== day);
  }

  function type(day: WeekdayKey, text: string): void {
    const read = readDay(text);
    if (read.mend) {
      drafts[day] = { text, mend: read.mend };
      if (!unread.includes(day)) unread = [...unread, day];
      return;
    }
    forget(day);
    week[day] = read.open;
  }

  function change(from: WeekdayKey, key: string, span: MinuteSpan, lane: string): void {
    const rest = spansOf(week[from]).filter((_, index) => String(index) !== key);
    const to = weekdays.find((day) => day.key === lane)?.key ?? from;
    if (to === from) return set(from, [...rest, span]);
    set(from, rest);
    set(to, [...spansOf(week[to]), span]);
  }

  function copy(from: WeekdayKey, to: readonly WeekdayKey[]): void {
    for (const day of to) {
      forget(day);
      week[day] = week[from].map((time) => ({ ...time }));
    }
  }

  function takeOver(pasted: Partial<Week>): void {
    for (const day of weekdays) {
      const open = pasted[day.key];
      if (!open) continue;
      forget(day.key);
      week[day.key] = open;
    }
    pasting = false;
  }
</script>

<!-- On a phone each day is two lines: its times as text, and under them its lane, as wide as the screen. -->
<table class="w-full table-fixed max-sm:block">
  <caption class="sr-only"
    >Open times of each weekday. In a lane: arrows move, space starts and ends, shift and arrows stretch, alt and arrows
    move it, delete erases.</caption
  >
  <thead class="max-sm:block">
    <tr class="text-fine text-muted max-sm:block">
      <th class="w-11 max-sm:hidden"><span class="sr-only">Day</span></th>
      <th class="relative h-5 font-normal max-sm:block">
        <span class="sr-only">Lane</span>
        {#each pieces as minute (minute)}<span
            aria-hidden="true"
            class="absolute top-0 -translate-x-1/2"
            style={placeOn(axis, minute, minute)}>{minute / 60}</span
          >{/each}
      </th>
      <td class="w-5 max-sm:hidden"></td>
      <th class="w-[206px] pb-1 text-left font-normal max-sm:hidden">as text</th>
      <th class="w-[52px] max-sm:hidden"><span class="sr-only">Copy</span></th>
    </tr>
  </thead>
  <tbody class="max-sm:block">
    {#each weekdays as day (day.key)}
      {@const mends = [drafts[day.key]?.mend, ...mendsOf(day.key)].filter((mend) => mend !== undefined)}
      <tr class="border-t border-line max-sm:grid max-sm:grid-cols-[44px_1fr_52px] max-sm:items-center">
        <th scope="row" class="py-1.5 text-left font-normal {week[day.key].length === 0 ? 'text-muted' : ''}"
          >{day.short}</th
        >
        <td class="relative h-10 p-0 max-sm:order-last max-sm:col-span-3">
          <div class="absolute inset-x-0 inset-y-2 bg-lane" aria-hidden="true">
            {#each pieces as minute (minute)}<span
                class="absolute inset-y-0 border-l border-line-strong"
                style={placeOn(axis, minute, minute)}
              ></span>{/each}
          </div>
          <div class="absolute inset-x-0 inset-y-1.5">
            <LaneSurface
              id={day.key}
              label="{day.name}, painted"
              {axis}
              pieces={spansOf(week[day.key]).map((span, index) => ({
                ...span,
                key: String(index),
                label: `${day.name} open`,
                tone: 'paint' as const,
              }))}
              describe={() => 'closed'}
              onpaint={(span) => set(day.key, [...spansOf(week[day.key]), span])}
              onchange={(key, span, lane) => change(day.key, key, span, lane)}
              onerase={(key) =>
                set(
                  day.key,
                  spansOf(week[day.key]).filter((_, index) => String(index) !== key),
                )}
            />
          </div>
        </td>
        <td class="max-sm:hidden"></td>
        <td class="py-1">
          <Input
            aria-label="{day.name}, open times"
            aria-invalid={mends.length > 0}
            value={drafts[day.key]?.text ?? dayInWords(week[day.key])}
            onchange={(event) => type(day.key, event.currentTarget.value)}
            class="px-2 py-1.5 text-sm {mends.length > 0 ? 'border-brick' : ''}"
          />
        </td>
        <td class="text-right">
          <TextButton
            aria-label="Copy {day.name} to other days"
            aria-expanded={copying === day.key}
            class="min-h-8 px-1 text-sm"
            onclick={() => (copying = copying === day.key ? undefined : day.key)}>copy</TextButton
          >
        </td>
      </tr>
      {#if mends.length > 0}
        <tr
          ><td></td><td colspan="4" class="pb-1.5"
            >{#each mends as mend (mend)}<Mend words={mend} class="" />{/each}</td
          ></tr
        >
      {/if}
      {#if copying === day.key}
        <tr>
          <td colspan="5" class="pb-2 text-sm">
            <span class="text-muted">{day.name}’s times to</span>
            {#each weekdays.filter((other) => other.key !== day.key) as other (other.key)}
              <button
                type="button"
                class="ml-1.5 min-h-8 rounded-lg border border-line-strong px-2 hover:bg-lane"
                onclick={() => copy(day.key, [other.key])}>{other.short}</button
              >
            {/each}
            <button
              type="button"
              class="ml-1.5 min-h-8 rounded-lg border border-line-strong px-2 hover:bg-lane"
              onclick={() =>
                copy(
                  day.key,
                  weekdays.slice(0, 5).map((other) => other.key),
                )}>Mon to Fri</button
            >
          </td>
        </tr>
      {/if}
    {/each}
  </tbody>
</table>
{#if pasting}
  <PasteHours ontake={takeOver} onclose={() => (pasting = false)} />
{:else}
  <p class="mt-1 text-fine text-muted">
    Drag in a lane to open hours, drag a bar or its ends to move or stretch it.
    <TextButton class="min-h-8" onclick={() => (pasting = true)}>Paste a whole week</TextButton>
  </p>
{/if}
