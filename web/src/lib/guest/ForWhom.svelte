<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { mendOf, type Problem } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import { say } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';

  interface Props {
    guest: GuestPageState;
    problem: Problem | undefined;
  }

  let { guest, problem }: Props = $props();

  const nameMend = $derived(mendOf(problem, 'for.name'));
  const emailMend = $derived(mendOf(problem, 'for.email'));
</script>

<Field label={say('for.name')} id="for-name" mend={nameMend}>
  <Input
    id="for-name"
    autocomplete="off"
    bind:value={guest.other.name}
    aria-invalid={nameMend !== undefined}
    aria-describedby={nameMend ? 'for-name-mend' : undefined}
    class="min-h-10 max-md:min-h-11"
  />
</Field>
<Field label={say('for.email')} id="for-email" mend={emailMend}>
  <Input
    id="for-email"
    type="email"
    autocomplete="off"
    bind:value={guest.other.email}
    aria-invalid={emailMend !== undefined}
    aria-describedby={emailMend ? 'for-email-mend' : undefined}
    class="min-h-10 max-md:min-h-11"
  />
</Field>
{#if guest.other.email.trim() !== ''}
  <Field label={say('for.mail')} id="for-mail" class="md:col-span-2">
    <select
      id="for-mail"
      class="min-h-10 w-full rounded-lg border border-line-strong bg-card px-3 max-md:min-h-11"
      bind:value={guest.other.mailTo}
    >
      <option value="both">{say('for.mail.both')}</option>
      <option value="booker">{say('for.mail.booker')}</option>
      <option value="guest">{say('for.mail.guest')}</option>
    </select>
  </Field>
{/if}
