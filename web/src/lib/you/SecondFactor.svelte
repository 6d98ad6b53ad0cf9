<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { renderSVG } from 'uqr';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { counted } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  let { isOn, codesLeft, onchanged }: { isOn: boolean; codesLeft: number; onchanged: () => void } = $props();

  let password = $state('');
  let code = $state('');
  let key = $state.raw<Schemas['FactorKey'] | undefined>(undefined);
  let codes = $state.raw<string[] | undefined>(undefined);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  const picture = $derived(key ? `data:image/svg+xml,${encodeURIComponent(renderSVG(key.uri, { border: 2 }))}` : '');

  async function act(event: SubmitEvent, doing: () => Promise<void>): Promise<void> {
    event.preventDefault();
    await attempt.run(async () => {
      await doing();
      password = '';
      code = '';
    });
  }

  async function start(): Promise<void> {
    key = await must(api.POST('/api/me/second-factor/start', { body: { password } }));
  }

  async function confirm(): Promise<void> {
    codes = (await must(api.POST('/api/me/second-factor/confirm', { body: { code } }))).codes;
    key = undefined;
    onchanged();
  }

  async function end(): Promise<void> {
    await must(api.POST('/api/me/second-factor/end', { body: { password } }));
    codes = undefined;
    onchanged();
  }
</script>

<section aria-labelledby="second-factor" class="rounded-2xl border border-line bg-card p-5">
  <h2 id="second-factor" class="text-lg">Second factor</h2>
  {#if problem}<ProblemNote {problem} />{/if}
  {#if codes}
    <p class="mt-1">
      It is on. Keep these recovery codes where you will find them without your authenticator; each lets you in once,
      and they are not shown again.
    </p>
    <ul class="my-2 grid grid-cols-2 gap-x-6 font-mono sm:grid-cols-3" aria-label="Recovery codes">
      {#each codes as one (one)}<li>{one}</li>{/each}
    </ul>
    <ActionButton onclick={() => (codes = undefined)}>I’ve saved them</ActionButton>
  {:else if key}
    <form novalidate class="mt-2 grid gap-5 sm:grid-cols-[180px_1fr]" onsubmit={(event) => void act(event, confirm)}>
      <img src={picture} alt="The key, to scan with an authenticator" class="h-[180px] w-[180px] rounded bg-on-dark" />
      <div class="space-y-3">
        <p>
          Scan it with an authenticator, or type this key into one: <code class="font-mono break-all">{key.key}</code>
        </p>
        <Field label="The code it shows now" id="factor-code" class="w-44" mend={mendOf(problem, 'code')}
          ><Input id="factor-code" inputmode="numeric" autocomplete="one-time-code" bind:value={code} /></Field
        >
        <p class="text-sm text-muted">Wherever else you are signed in, you will be signed out.</p>
        <div class="flex gap-2">
          <ActionButton kind="main" type="submit">Turn it on</ActionButton><ActionButton
            kind="quiet"
            onclick={() => (key = undefined)}>Cancel</ActionButton
          >
        </div>
      </div>
    </form>
  {:else}
    <p class="mt-1 mb-2">
      {isOn
        ? `It is on: signing in asks for a code of your authenticator. ${counted(codesLeft, 'recovery code is', 'recovery codes are')} left.`
        : 'It is off. With it, signing in also asks for a code that an authenticator on your phone shows.'}
    </p>
    <form novalidate class="flex flex-wrap items-end gap-3" onsubmit={(event) => void act(event, isOn ? end : start)}>
      <Field label="Your password" id="factor-password" class="w-64" mend={mendOf(problem, 'password')}
        ><Input id="factor-password" type="password" autocomplete="current-password" bind:value={password} /></Field
      >
      <ActionButton type="submit">{isOn ? 'Turn it off' : 'Set it up'}</ActionButton>
    </form>
  {/if}
</section>
