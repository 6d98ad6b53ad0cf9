<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { dateIn, dayName, timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';

  interface Props {
    outside: Schemas['OutsideView'];
    /** What the booking is, for the buttons' names. */
    booking: string;
    zone: string;
    /** Which booking it is, where that does not stand beside it. */
    subject?: string;
  }

  let { outside, booking, zone, subject = '' }: Props = $props();

  const attempt = new Attempt();
  const to = $derived(
    outside.start && outside.end
      ? `${dayName(dateIn(outside.start, zone))}, ${timeOf(outside.start, zone)} to ${timeOf(outside.end, zone)}`
      : '',
  );

  async function answer(how: 'move' | 'put-back' | 'leave-off'): Promise<void> {
    await attempt.run(() => {
      const params = { path: { id: outside.id } };
      if (how === 'move') return must(api.POST('/api/written-events/{id}/move', { params }));
      if (how === 'put-back') return must(api.POST('/api/written-events/{id}/put-back', { params }));
      return must(api.POST('/api/written-events/{id}/leave-off', { params }));
    });
    await askAnew();
  }
</script>

<div class="rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-2 text-sm text-brick-text" data-test="outside">
  <p>
    {#if subject}<strong>{subject}.</strong>{/if}
    {#if outside.change === 'moved'}
      In {outside.hostName}’s calendar “{outside.calendar}” the event was moved to <strong>{to}</strong>. The booking is
      where it was.
    {:else}
      In {outside.hostName}’s calendar “{outside.calendar}” the event was <strong>deleted</strong>. The booking stands
      as it was.
    {/if}
  </p>
  {#if attempt.problem}<p class="mt-1 font-semibold" role="alert">
      {attempt.problem.title}
      {attempt.problem.detail ?? ''}
    </p>{/if}
  {#if outside.mayAnswer}
    <div class="mt-1.5 flex flex-wrap gap-2">
      {#if outside.change === 'moved'}<ActionButton
          class="py-1.5"
          disabled={attempt.busy}
          onclick={() => void answer('move')}>Move the booking<span class="sr-only"> of {booking}</span></ActionButton
        >{/if}
      <ActionButton class="py-1.5" disabled={attempt.busy} onclick={() => void answer('put-back')}
        >Restore the event<span class="sr-only"> of {booking}</span></ActionButton
      >
      {#if outside.change === 'deleted'}<ActionButton
          kind="quiet"
          class="py-1.5"
          disabled={attempt.busy}
          onclick={() => void answer('leave-off')}
          >Leave it out of that calendar<span class="sr-only">, {booking}</span></ActionButton
        >{/if}
    </div>
  {:else}
    <p class="mt-1">{outside.hostName} can choose what should be, and whoever they let move their bookings.</p>
  {/if}
</div>
