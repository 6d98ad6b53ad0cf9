<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { isNight } from '$lib/board/nights';
  import { cityOf } from '$lib/time/clock';
  import { darkSentences } from '$lib/supply/reasons';
  import { counted, dateIn, shortDate, timeOf } from '$lib/time/format';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { dayAndTime, paintedWords } from './words';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    mayEdit: boolean;
    onbook: (start: string) => void;
  }

  let { link, mayEdit, onbook }: Props = $props();

  const MOST = 12;
  const { zone } = $derived(link.form.times);
  const theirs = $derived(link.form.guestZone);
  // In the guest's night it is said what the clock shows there.
  const nightAt = (start: string): boolean => theirs !== '' && theirs !== zone && isNight(start, theirs);
  const isPicked = $derived(link.offer.by === 'picked');
  const openings = $derived(link.supply?.openings ?? []);
  // Of pieces all are listed, also those that went since.
  const rows = $derived<{ start: string; isOpen: boolean }[]>(
    isPicked
      ? link.offer.picked.map((start) => ({ start, isOpen: !link.missed.has(start) }))
      : openings.slice(0, MOST).map((opening) => ({ start: opening.start, isOpen: true })),
  );
  const wishes = $derived<Schemas['WishView'][]>(link.saved?.wishes ?? []);
  const severalMayAsk = $derived(link.form.guests.length !== 1);

  /** What was written with a wish, and by whom. */
  function said(wish: Schemas['WishView']): string {
    return severalMayAsk && wish.by !== '' ? `${wish.by}: “${wish.words}”` : `“${wish.words}”`;
  }

  const nothing: Schemas['DarkAnswer'] = { from: '', to: '', zone: 'UTC', ofPage: [], seats: [], shared: [] };

  /** What is offered longer can be used as long. */
  function lengthen(date: string): void {
    link.setOffer({ until: date });
    if (link.form.details.endsOn < date) link.setDetails({ endsOn: date });
  }

  async function release(start: string): Promise<void> {
    if (link.held.has(start)) await link.release([start]);
    else link.unpick(start);
  }

  function takeWish(wish: Schemas['WishView']): void {
    link.setOffer({ by: 'picked' });
    link.pick(wish.start);
  }
</script>

<section aria-labelledby="offered" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="offered" class="text-part">
    <span class="font-heading font-bold">{link.supply ? openings.length : '…'}</span>
    {openings.length === 1 ? 'opening' : 'openings'} offered{#if link.missed.size > 0}, <span class="text-brick"
        >{counted(link.missed.size, 'picked time is', 'picked times are')} not open</span
      >{/if}
  </h2>
  {#if rows.length === 0}<p class="mt-1 text-muted">
      {isPicked
        ? 'Press on the board to pick a time, or choose a suggestion.'
        : link.offer.by === 'painted'
          ? 'Paint a stretch on the board; what is free in it is offered.'
          : 'Nothing is free by these rules.'}
    </p>{/if}
  <ul class="mt-1" aria-label="Offered times">
    {#each rows as row (row.start)}
      <li
        data-offered={row.start}
        class="flex flex-wrap items-center gap-x-3 border-t border-line py-1 first:border-t-0"
      >
        <span class="min-w-0 flex-1 {row.isOpen ? '' : 'text-muted line-through'}">{dayAndTime(row.start, zone)}</span>
        {#if nightAt(row.start)}<span class="text-sm text-amber-text" data-test="in-their-night"
            >{timeOf(row.start, theirs)} in {cityOf(theirs)}</span
          >{/if}
        {#if link.held.has(row.start)}<span
            class="hatched rounded-md border border-violet bg-violet-tint px-1.5 text-sm text-ink">held</span
          >{/if}
        {#if !row.isOpen}<span class="text-sm text-brick">not open</span>{/if}
        {#if link.missed.get(row.start) && !link.isOver}
          {@const date = dateIn(row.start, zone)}
          <span class="order-last basis-full pb-1 text-sm text-muted">
            {darkSentences(link.missed.get(row.start) ?? nothing).join(' ')}
            {#if mayEdit && date > link.offer.until}<TextButton class="min-h-7 text-sm" onclick={() => lengthen(date)}
                >Offer until {shortDate(date)}</TextButton
              >{/if}
          </span>
        {/if}
        {#if mayEdit && !link.isOver}
          {#if row.isOpen}<TextButton
              class="min-h-8 text-sm"
              aria-label="Book {dayAndTime(row.start, zone)} by hand"
              onclick={() => onbook(row.start)}>book</TextButton
            >{/if}
          {#if isPicked}<TextButton
              class="min-h-8 text-sm"
              aria-label="{link.held.has(row.start) ? 'Release' : 'Erase'} {dayAndTime(row.start, zone)}"
              onclick={() => void release(row.start)}>{link.held.has(row.start) ? 'release' : 'erase'}</TextButton
            >{/if}
        {/if}
      </li>
    {/each}
  </ul>
  {#if !isPicked && openings.length > MOST}<p class="text-sm text-muted">and {openings.length - MOST} more</p>{/if}
  {#if link.offer.by === 'painted' && link.offer.painted.length > 0}
    <ul class="mt-2 border-t border-line pt-1" aria-label="Painted stretches">
      {#each link.offer.painted as paint, at (at)}
        <li class="flex flex-wrap items-center gap-x-3 py-0.5 text-sm">
          <span class="min-w-0 flex-1">{paintedWords(paint)}</span>
          <label class="inline-flex min-h-8 items-center gap-1.5"
            ><input
              type="checkbox"
              class="rounded border-edge"
              disabled={!mayEdit}
              bind:checked={
                () => paint.isWeekly,
                (isWeekly) =>
                  link.setOffer({
                    painted: link.offer.painted.map((one, i) => (i === at ? { ...one, isWeekly } : one)),
                  })
              }
            /> each week</label
          >
          {#if mayEdit}<TextButton
              class="min-h-8"
              aria-label="Erase what is painted, {paintedWords(paint)}"
              onclick={() => link.erasePaint(at)}>erase</TextButton
            >{/if}
        </li>
      {/each}
    </ul>
  {/if}
  {#if wishes.length > 0}
    <h3 class="mt-3 text-body">None worked; these would</h3>
    <ul aria-label="Wished times">
      {#each wishes as wish (wish.id)}
        <li class="flex flex-wrap items-center gap-x-3 border-t border-line py-1 first:border-t-0">
          <span class="min-w-0 flex-1"
            >{dayAndTime(wish.start, zone)}{#if severalMayAsk && wish.by !== ''}<span class="text-sm text-muted"
                >, {wish.by}</span
              >{/if}</span
          >
          {#if mayEdit && !link.isOver}
            {#if link.offer.picked.includes(wish.start)}<span class="text-sm text-muted">offered now</span
              >{:else}<TextButton
                class="min-h-8 text-sm"
                aria-label="Offer {dayAndTime(wish.start, zone)}"
                onclick={() => takeWish(wish)}>offer it</TextButton
              >{/if}
          {/if}
          {#if mayEdit}<TextButton
              class="min-h-8 text-sm"
              aria-label="Dismiss the wish for {dayAndTime(wish.start, zone)}"
              onclick={() => void link.dropWish(wish.id)}>dismiss</TextButton
            >{/if}
        </li>
      {/each}
    </ul>
    {#each new Set(wishes.filter((wish) => wish.words !== '').map(said)) as words (words)}<p
        class="mt-1 text-sm whitespace-pre-line text-muted"
      >
        {words}
      </p>{/each}
  {/if}
</section>
