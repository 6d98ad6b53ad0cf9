<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let email = $state('');
  let asked = $state(false);
  const attempt = new Attempt();

  async function ask(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    asked = await attempt.run(() => must(api.POST('/api/password-resets', { body: { email: email.trim() } })));
  }
</script>

<svelte:head><title>A new password – Loose Lantern</title></svelte:head>

<Doorway title="A new password">
  {#if asked}
    <p role="status">
      If someone has a sign-in with {email.trim()}, a mail with a link is on its way to it. The link works once, for two
      hours.
    </p>
  {:else}
    <form class="space-y-4" novalidate onsubmit={(event) => void ask(event)}>
      {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
      <Field label="Your email" id="email" mend={mendOf(attempt.problem, 'email')}
        ><Input id="email" type="email" autocomplete="username" bind:value={email} class="min-h-10" /></Field
      >
      <ActionButton kind="main" type="submit" disabled={attempt.busy} class="w-full">Send me a link</ActionButton>
    </form>
  {/if}
  <p class="mt-6 text-muted">
    <a class="text-ink underline underline-offset-4" href="/sign-in">Back to the sign-in</a>
  </p>
</Doorway>
