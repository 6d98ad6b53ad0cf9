<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';

  let { onchanged }: { onchanged: () => void } = $props();

  let password = $state('');
  let newPassword = $state('');
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let told = $state('');

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      await must(api.PUT('/api/me/password', { body: { password, newPassword } }));
      password = '';
      newPassword = '';
      told = 'Changed. You are signed out everywhere else.';
      onchanged();
    });
  }
</script>

<section aria-labelledby="password-change" class="rounded-2xl border border-line bg-card p-5">
  <h2 id="password-change" class="text-lg">Password</h2>
  <form novalidate class="mt-2 grid items-start gap-4 md:grid-cols-2" onsubmit={(event) => void change(event)}>
    <Field label="Password now" id="password-now" mend={mendOf(problem, 'password')}
      ><Input id="password-now" type="password" autocomplete="current-password" bind:value={password} /></Field
    >
    <Field
      label="New password"
      id="password-new"
      hint="10 characters or more that nobody would guess"
      mend={mendOf(problem, 'newPassword')}
      ><Input id="password-new" type="password" autocomplete="new-password" bind:value={newPassword} /></Field
    >
    <div class="flex items-center gap-3 md:col-span-2">
      <ActionButton type="submit">Change password</ActionButton><span role="status" class="text-muted"
        >{told || (problem && !problem.errors ? problem.title : '')}</span
      >
    </div>
  </form>
</section>
