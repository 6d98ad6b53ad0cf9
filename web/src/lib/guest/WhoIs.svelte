<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { mendOf, type Problem } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { say } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';

  interface Props {
    guest: GuestPageState;
    problem: Problem | undefined;
    /** What stands before "name" and "email" where the server names these fields. */
    under: string;
    /** What is asked between who it is and how they are called. */
    children?: Snippet;
  }

  let { guest, problem, under, children }: Props = $props();

  const nameMend = $derived(mendOf(problem, `${under}name`));
  const emailMend = $derived(mendOf(problem, `${under}email`));
  const known = $derived(guest.known);
  const named = $derived(known?.isOne === true ? known.guests[0] : undefined);
  const one = $derived(guest.notMe ? undefined : named);
  const asksName = $derived(one === undefined && guest.who === undefined);
  // Of several guests the server knows whether it has their email; where it has none, it asks.
  const asksEmail = $derived(
    one !== undefined
      ? known?.email === ''
      : guest.who === undefined || emailMend !== undefined || guest.typed.email !== '',
  );
</script>

{#if one}
  <p class="self-center md:col-span-2">
    {known?.email ? say('form.for-name-email', { name: one, email: known.email }) : say('form.for-name', { name: one })}
    <TextButton class="min-h-11 px-2 text-muted" onclick={() => (guest.notMe = true)}>{say('form.not-me')}</TextButton>
  </p>
{:else if known && known.guests.length > 1}
  <Field label={say('form.who')} id="guest-who" class="md:col-span-2">
    <select
      id="guest-who"
      class="min-h-10 w-full rounded-lg border border-line-strong bg-card px-3 max-md:min-h-11"
      bind:value={() => guest.who ?? -1, (who) => (guest.who = who < 0 ? undefined : who)}
    >
      <option value={-1}>{say('form.somebody-else')}</option>
      {#each known.guests as name, who (who)}<option value={who}>{name}</option>{/each}
    </select>
  </Field>
{/if}
{@render children?.()}
{#if asksName}
  <Field label={say('form.name')} id="guest-name" mend={nameMend}>
    <Input
      id="guest-name"
      name="name"
      autocomplete="name"
      bind:value={guest.typed.name}
      aria-invalid={nameMend !== undefined}
      aria-describedby={nameMend ? 'guest-name-mend' : undefined}
      class="min-h-10 max-md:min-h-11"
    />
  </Field>
{/if}
{#if asksEmail}
  <Field label={say('form.email')} id="guest-email" mend={emailMend}>
    <Input
      id="guest-email"
      name="email"
      type="email"
      autocomplete="email"
      bind:value={guest.typed.email}
      aria-invalid={emailMend !== undefined}
      aria-describedby={emailMend ? 'guest-email-mend' : undefined}
      class="min-h-10 max-md:min-h-11"
    />
  </Field>
{/if}
