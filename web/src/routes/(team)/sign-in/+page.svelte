<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, forgetToken } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Doorway from '$lib/ui/Doorway.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let email = $state('');
  let password = $state('');
  let code = $state('');
  let needsCode = $state(false);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  /** Only a path of our own: a whole address in the query could lead anywhere. */
  function whereTo(): string {
    const back = page.url.searchParams.get('back') ?? '';
    return /^\/work(\/|$)/.test(back) ? back : '/work/pages';
  }

  async function signIn(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    forgetToken();
    await attempt.run(async () => {
      await must(api.POST('/api/sign-in', { body: { email: email.trim(), password, code: needsCode ? code : null } }));
      forgetToken();
      await goto(whereTo(), { invalidateAll: true });
    });
    // Being asked for the second factor is a step and no fault.
    if (problem?.type === 'urn:loose-lantern:code-needed' && !needsCode) {
      needsCode = true;
      attempt.problem = undefined;
    }
  }
</script>

<svelte:head><title>Sign in – Loose Lantern</title></svelte:head>

<Doorway title="Sign in">
  <form class="space-y-4" novalidate onsubmit={(event) => void signIn(event)}>
    {#if problem}<ProblemNote {problem} />{/if}
    <Field label="Email" id="email"
      ><Input id="email" type="email" autocomplete="username" bind:value={email} class="min-h-10" /></Field
    >
    <Field label="Password" id="password"
      ><Input
        id="password"
        type="password"
        autocomplete="current-password"
        bind:value={password}
        class="min-h-10"
      /></Field
    >
    {#if needsCode}
      <Field label="Code of your authenticator" id="code" hint="Or one of your recovery codes">
        <!-- The one thing that is asked for now. -->
        <Input id="code" autofocus autocomplete="one-time-code" bind:value={code} class="min-h-10" />
      </Field>
    {/if}
    <ActionButton kind="main" type="submit" disabled={attempt.busy} class="w-full"
      >{attempt.busy ? 'Signing in…' : 'Sign in'}</ActionButton
    >
  </form>
  <p class="mt-6"><a class="underline underline-offset-4" href="/forgot">I forgot my password</a></p>
  <p class="mt-2 text-muted">
    No workspace yet? <a class="text-ink underline underline-offset-4" href="/start">Make one</a>
  </p>
</Doorway>
