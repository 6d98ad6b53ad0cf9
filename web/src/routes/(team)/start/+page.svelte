<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import WorkspaceForm from '$lib/start/WorkspaceForm.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  let email = $state('');
  let asked = $state(false);
  const attempt = new Attempt();

  async function ask(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    asked = await attempt.run(() => must(api.POST('/api/sign-up/links', { body: { email: email.trim() } })));
  }
</script>

<svelte:head><title>Make a workspace – Loose Lantern</title></svelte:head>

<Doorway title="Make a workspace">
  {#if !data.byMail}
    <WorkspaceForm />
  {:else if asked}
    <p role="status">
      A mail is on its way to <strong class="wrap-anywhere">{email.trim()}</strong>. Open the link in it to go on; it
      works once, for two hours.
    </p>
    <p class="mt-3 text-muted">
      No mail? Look among the unwanted ones, or <TextButton class="min-h-9 text-ink" onclick={() => (asked = false)}
        >use another address</TextButton
      >.
    </p>
  {:else}
    <p class="mb-5">We mail you a link to go on with, so that nobody but you can use your address.</p>
    <form class="space-y-4" novalidate onsubmit={(event) => void ask(event)}>
      {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
      <Field label="Your email" id="email" mend={mendOf(attempt.problem, 'email')}
        ><Input id="email" type="email" autocomplete="username" bind:value={email} class="min-h-10" /></Field
      >
      <ActionButton kind="main" type="submit" disabled={attempt.busy} class="w-full">Send me a link</ActionButton>
    </form>
  {/if}
  <p class="mt-6 text-muted">
    Already have a sign-in? <a class="text-ink underline underline-offset-4" href="/sign-in">Sign in</a>
  </p>
</Doorway>
