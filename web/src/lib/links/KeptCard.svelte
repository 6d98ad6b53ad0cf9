<script lang="ts">
  import { Input, Toggle } from 'flowbite-svelte';
  import { Temporal } from 'temporal-polyfill';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, shortDate, timeOf } from '$lib/time/format';
  import { untilOf } from './holding';
  import type { LinkEditing } from './LinkEditing.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    link: LinkEditing;
    mayEdit: boolean;
    now: string;
  }

  let { link, mayEdit, now }: Props = $props();

  const SWITCH = 'hold-all';
  const { zone } = $derived(link.form.times);
  const holds = $derived(link.saved?.holds ?? []);
  const until = $derived(holds[0]?.until ?? undefined);
  // Until the last of them begins, or the link ends, if that is sooner.
  const usual = $derived(untilOf(link.offer.picked, link.form.details.endsOn, zone, now));
  let typed = $state<string | undefined>(undefined);
  const wall = $derived(
    typed ??
      (until
        ? Temporal.Instant.from(until).toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'minute' })
        : usual),
  );
  const counted = $derived(holds.length === 1 ? 'One time is' : `${String(holds.length)} times are`);

  function instant(): string {
    return Temporal.PlainDateTime.from(wall).toZonedDateTime(zone).toInstant().toString({ smallestUnit: 'second' });
  }

  async function turn(on: boolean): Promise<void> {
    if (await link.hold(on ? instant() : null)) typed = undefined;
    // The switch shows what is held, also where that was refused.
    const box = document.getElementById(SWITCH);
    if (box instanceof HTMLInputElement) box.checked = holds.length > 0;
  }
</script>

<section aria-labelledby="kept" class="rounded-2xl border border-line bg-card p-4">
  <h2 id="kept" class="text-part">Kept for {link.guestName || 'them'}</h2>
  {#if link.offer.by !== 'picked'}
    <p class="mt-1 text-muted">Only times that you pick can be held.</p>
  {:else}
    <div class="mt-1.5 flex items-start gap-2.5">
      <Toggle
        id={SWITCH}
        classes={{ span: 'peer-checked:bg-violet' }}
        bind:checked={() => holds.length > 0, (on) => void turn(on)}
        aria-label="Hold all picked times"
        disabled={!mayEdit || link.busy || link.isOver || link.offer.picked.length === 0}
      />
      <p>
        {#if holds.length > 0 && until}
          {counted} held on the hosts’ calendars until
          <strong
            >{dateIn(until, zone) === dateIn(now, zone) ? 'today' : shortDate(dateIn(until, zone))}, {timeOf(
              until,
              zone,
            )}</strong
          >. <span class="text-muted">When one is taken, the others are freed.</span>
        {:else}
          Hold all picked times on everyone’s calendars until
        {/if}
      </p>
    </div>
    {#if mayEdit && !link.isOver}
      <div class="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <span class="w-52"
          ><Input
            type="datetime-local"
            aria-label="Held until, {cityOf(zone)} time"
            class="py-1.5"
            bind:value={() => wall, (next) => (typed = next || undefined)}
          /></span
        >
        {#if holds.length > 0 && typed !== undefined}<TextButton class="min-h-9" onclick={() => void turn(true)}
            >Hold until then</TextButton
          >{/if}
      </div>
    {/if}
    {#if link.mend('until')}<p class="mt-1 text-sm text-brick" role="alert">{link.mend('until')}</p>{/if}
  {/if}
</section>
