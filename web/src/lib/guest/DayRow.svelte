<script lang="ts">
  import { dayName, longDate, monthName, timeOf, weekday } from '$lib/time/format';
  import { say, sayCount } from '$lib/words/say.svelte';
  import type { Snippet } from 'svelte';
  import { parts, type ShownOpening } from './days';
  import type { GuestPageState } from './GuestPageState.svelte';
  import { clashOf } from './taken';

  interface Props {
    guest: GuestPageState;
    date: string;
    openings: ShownOpening[];
    /** The next opening after an empty day; null where another empty row names it already. */
    next: ShownOpening | null;
    onchoose: (opening: ShownOpening) => void;
    form?: Snippet;
  }

  let { guest, date, openings, next, onchoose, form }: Props = $props();

  const { zone, hourNow, page } = $derived(guest);
  const chosen = $derived(guest.chosen?.start);
  // Several guests share a session, so each time tells how many places are left.
  const isShared = $derived(page.places > 1);
  const showsMine = $derived(page.isPlaceZoneOnly && guest.alsoMine);
  const ends = { morning: 12, afternoon: 17, evening: 24 };
  const isToday = $derived(date === guest.today);
  const beneath = $derived.by(() => {
    if (isToday) return openings.length > 0 ? say('day.today-left', { n: openings.length }) : say('day.today');
    return monthName(date);
  });

  const day = $derived(weekday(date));

  function labelOf(opening: ShownOpening, time: string): string {
    const left = isShared ? ` ${say('day.left', { n: opening.placesLeft })}` : '';
    const mine = showsMine ? ` ${timeOf(opening.start, guest.own)}` : '';
    const clash = clashOf(guest.taken, opening.start, opening.end) ? ` ${say('day.clash')}, ${say('day.clashes')}` : '';
    return `${day}, ${time}${left}${mine}${clash}`;
  }
</script>

<section aria-label={longDate(date)} class="border-t border-line">
  <div class="grid gap-x-3 py-2.5 md:grid-cols-[126px_1fr]">
    <header class="flex items-baseline justify-between md:block">
      <h2 class="text-lg leading-tight {openings.length === 0 ? 'text-muted' : ''}">
        <span class="md:hidden">{dayName(date)} {monthName(date)}</span><span class="hidden md:inline"
          >{dayName(date)}</span
        >
      </h2>
      <p class="text-fine text-muted">
        <span class="md:hidden"
          >{isToday ? beneath : openings.length > 0 ? say('day.open', { n: openings.length }) : ''}</span
        >
        <span class="hidden md:inline">{beneath}</span>
      </p>
    </header>

    {#if openings.length === 0}
      <p class="py-1 text-muted md:py-1.5">
        {say('day.nothing-open')}
        {#if next}
          {say('day.next')}
          <button
            type="button"
            class="font-semibold text-ink underline decoration-line-strong underline-offset-4 max-md:min-h-11"
            onclick={() => onchoose(next)}
            >{dayName(next.date)}{next.date.slice(0, 7) === date.slice(0, 7) ? '' : ` ${monthName(next.date)}`}, {timeOf(
              next.start,
              zone,
            )}</button
          >
        {/if}
      </p>
    {:else}
      <div class="md:grid md:grid-cols-3 md:gap-x-3">
        {#each parts as part (part)}
          {@const here = openings.filter((opening) => opening.part === part)}
          <div
            class="grid grid-cols-[76px_1fr] items-start gap-2 py-1 md:block md:py-0 {here.length === 0
              ? 'max-md:hidden'
              : ''}"
          >
            <span class="pt-2.5 text-fine text-muted md:hidden">{say(`part.${part}`)}</span>
            {#if here.length === 0}
              <span class="block py-1.5 text-muted">{isToday && hourNow >= ends[part] ? say('day.passed') : '–'}</span>
            {:else}
              <ul
                class="flex flex-wrap gap-2 max-md:grid max-md:grid-cols-[repeat(auto-fill,minmax(80px,1fr))]"
                aria-label="{say(`part.${part}`)}, {sayCount(here.length, 'openings')}"
              >
                {#each here as opening (opening.start)}
                  {@const isChosen = opening.start === chosen}
                  {@const time = timeOf(opening.start, zone)}
                  {@const clash = clashOf(guest.taken, opening.start, opening.end)}
                  <li>
                    <button
                      type="button"
                      data-start={opening.start}
                      aria-pressed={isChosen}
                      aria-label={labelOf(opening, time)}
                      title={clash ? say('form.clash', { title: clash.title }) : undefined}
                      class="min-h-9 w-full min-w-16 rounded-[10px] border px-2.5 py-1 font-bold whitespace-nowrap max-md:min-h-11 max-md:px-1 {isChosen
                        ? 'border-chosen bg-chosen text-on-chosen'
                        : clash
                          ? 'border-dashed border-edge bg-transparent text-ink hover:bg-lane'
                          : 'border-glow-soft bg-glow-tint text-on-tint hover:border-glow-bar hover:bg-glow-soft'}"
                      onclick={() => onchoose(opening)}
                      >{time}{#if isShared}{' '}<span class="block text-fine leading-tight font-normal"
                          >{say('day.left', { n: opening.placesLeft })}</span
                        >{/if}{#if showsMine}{' '}<span class="block text-fine leading-tight font-normal"
                          >{timeOf(opening.start, guest.own)}</span
                        >{/if}{#if clash}{' '}<span aria-hidden="true" class="block text-fine leading-tight font-normal"
                          >{say('day.clash')}</span
                        >{/if}</button
                    >
                  </li>
                {/each}
              </ul>
            {/if}
          </div>
        {/each}
      </div>
    {/if}
  </div>
  {@render form?.()}
</section>
