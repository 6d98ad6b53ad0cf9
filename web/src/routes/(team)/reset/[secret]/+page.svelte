<script lang="ts">
  import { page } from '$app/state';
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let password = $state('');
  let done = $state(false);
  const attempt = new Attempt();

  async function choose(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const secret = page.params.secret ?? '';
    done = await attempt.run(() =>
      must(api.POST('/api/password-resets/{secret}', { params: { path: { secret } }, body: { password } })),
    );
  }
</script>

<svelte:head><title>A new password – Loose Lantern</title></svelte:head>

<Doorway title="Choose a new password">
  {#if done}
    <p role="status">Your password is changed, and everybody who was signed in as you is signed out.</p>
    <p class="mt-4"><ActionButton kind="main" href="/sign-in">Sign in</ActionButton></p>
  {:else}
    <form class="space-y-4" novalidate onsubmit={(event) => void choose(event)}>
      {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
      <Field label="New password" id="password" mend={mendOf(attempt.problem, 'password')}
        ><Input
          id="password"
          type="password"
          autocomplete="new-password"
          bind:value={password}
          class="min-h-10"
        /></Field
      >
      <ActionButton kind="main" type="submit" disabled={attempt.busy} class="w-full">Use this password</ActionButton>
    </form>
    <p class="mt-6 text-muted">
      <a class="text-ink underline underline-offset-4" href="/forgot">Ask for another link</a>
    </p>
  {/if}
</Doorway>
