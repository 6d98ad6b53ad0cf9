<script lang="ts">
  import { Input, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { guestApi } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { cityOf } from '$lib/time/clock';
  import { say } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    guest: GuestPageState;
    address: string;
    /** Who hears of it. */
    ask: string;
    /** How many times were sent already that nobody answered yet. */
    wished: number;
    /** Whether who asks has to say who it is. */
    asksName: boolean;
  }

  let { guest, address, ask, wished, asksName }: Props = $props();

  const MOST = 6;
  let open = $state(false);
  let sent = $state(false);
  let times = $state<string[]>(['']);
  let words = $state('');
  let by = $state('');
  const sending = new Attempt();
  const zone = $derived(guest.page.isPlaceZoneOnly ? guest.page.zone : guest.zone);

  async function send(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const typed = times.filter((time) => time !== '');
    if (typed.length === 0) {
      sending.refuse({ starts: [say('wish.missing')] });
      return;
    }
    sent = await sending.run(async () => {
      // Loaded only here: few guests write of times of their own.
      const { startsOf } = await import('./wishedStarts');
      return await must(
        guestApi.POST('/api/public/links/{address}/wishes', {
          params: { path: { address } },
          body: { starts: startsOf(typed, zone), words, zone, by: asksName ? by.trim() : '' },
        }),
      );
    });
  }
</script>

<div class="mt-4 max-w-2xl">
  {#if sent}
    <p role="status" class="rounded-2xl border border-line bg-card px-4 py-3">
      {say('wish.sent', { name: ask })}
    </p>
  {:else}
    {#if wished > 0}<p class="mb-1 text-muted">
        {say('wish.pending', { name: ask })}
      </p>{/if}
    <TextButton aria-expanded={open} class="min-h-11" onclick={() => (open = !open)}>{say('wish.title')}</TextButton>
    {#if open}
      <form
        novalidate
        class="mt-1 space-y-3 rounded-2xl border border-line bg-card p-4"
        onsubmit={(event) => void send(event)}
      >
        <fieldset>
          <legend class="mb-1">{say('wish.times')}</legend>
          <p id="wish-zone" class="mb-1 text-sm text-muted">{say('wish.zone', { city: cityOf(zone) })}</p>
          <div class="flex flex-wrap gap-2">
            {#each times as time, at (at)}
              <span class="w-56 max-md:w-full"
                ><Input
                  type="datetime-local"
                  aria-describedby="wish-zone"
                  aria-label={say('wish.time', { n: at + 1 })}
                  class="min-h-10 max-md:min-h-11"
                  bind:value={() => time, (next) => (times = times.map((one, i) => (i === at ? (next ?? '') : one)))}
                /></span
              >
            {/each}
            {#if times.length < MOST}<TextButton class="min-h-11 px-2" onclick={() => (times = [...times, ''])}
                >{say('wish.more')}</TextButton
              >{/if}
          </div>
          {#if mendOf(sending.problem, 'starts')}<p class="mt-1 text-sm text-brick" role="alert">
              {mendOf(sending.problem, 'starts')}
            </p>{/if}
        </fieldset>
        {#if asksName}
          <Field label={say('form.name')} id="wish-by" mend={mendOf(sending.problem, 'by')}
            ><Input id="wish-by" autocomplete="name" class="min-h-10 max-md:min-h-11" bind:value={by} /></Field
          >
        {/if}
        <div>
          <label class="mb-1 block" for="wish-words">{say('wish.words')}</label>
          <Textarea id="wish-words" rows={2} class="w-full" maxlength={1000} bind:value={words} />
        </div>
        {#if sending.problem}<ProblemNote problem={sending.problem} />{/if}
        <ActionButton type="submit" disabled={sending.busy} class="min-h-11">{say('wish.send')}</ActionButton>
      </form>
    {/if}
  {/if}
</div>
