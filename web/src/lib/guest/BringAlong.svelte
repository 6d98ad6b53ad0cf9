<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { say } from '$lib/words/say.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    /** Says who comes from now on. */
    save: (form: Schemas['CompanionsForm']) => Promise<unknown>;
    title?: string;
    /** What becomes of whom is added. */
    about?: string;
    /** Whether it stands apart, as everything on the team's screens. */
    isOwnCard?: boolean;
    people: Schemas['Companion'][];
    most: number;
    /** How many of them are mailed; the others only count. */
    mostMailed: number;
    /** Addresses whose mail waits. */
    waiting: string[];
    /** How many come in all, where each takes a place; undefined where they take none. */
    party?: number;
    onchanged: () => void;
  }

  let {
    save,
    title = say('along.title'),
    about = say('along.what-happens'),
    isOwnCard = false,
    people,
    most,
    mostMailed,
    waiting,
    party,
    onchanged,
  }: Props = $props();

  let adding = $state(false);
  let typed = $state({ name: '', email: '' });
  const attempt = new Attempt();
  /** Who is named comes in any case. */
  const parties = $derived(Array.from({ length: most - people.length + 1 }, (_, at) => at + 1 + people.length));
  const unnamed = $derived(Math.max((party ?? 0) - people.length - 1, 0));

  /** @param come How many come in all; who is named comes in any case. */
  async function bring(next: Schemas['Companion'][], come?: number): Promise<boolean> {
    const done = await attempt.run(() =>
      save({ people: next, party: party === undefined ? null : (come ?? next.length + 1 + unnamed) }),
    );
    if (done) onchanged();
    return done;
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!(await bring([...people, { name: typed.name.trim(), email: typed.email.trim() }]))) return;
    typed = { name: '', email: '' };
    adding = false;
  }
</script>

<section
  class={isOwnCard ? 'rounded-2xl border border-line bg-card p-5' : 'border-t border-line pt-5'}
  aria-labelledby="along"
>
  <h2 id="along" class="text-lg">{title}</h2>
  {#if party !== undefined}
    <span class="mt-1 flex items-center gap-2">
      <label for="party">{say('party.how-many')}</label>
      <select
        id="party"
        class="min-h-11 rounded-lg border border-line-strong bg-card px-3"
        disabled={attempt.busy}
        bind:value={() => party, (come) => void bring(people, come)}
      >
        {#each parties as come (come)}<option value={come}>{come}</option>{/each}
      </select>
    </span>
  {/if}
  {#if people.length > 0}
    <ul class="mt-1">
      {#each people as one (one.email)}
        <li class="flex items-center justify-between gap-2">
          <span class="min-w-0 wrap-anywhere"
            >{one.name === '' ? one.email : `${one.name}, ${one.email}`}{#if waiting.includes(one.email)}<span
                class="block text-sm text-muted">{say('along.mail-waits')}</span
              >{/if}</span
          >
          <TextButton
            class="min-h-11 text-muted"
            aria-label={say('along.leave-out-name', { name: one.name === '' ? one.email : one.name })}
            disabled={attempt.busy}
            onclick={() =>
              void bring(
                people.filter((other) => other !== one),
                party === undefined ? undefined : party - 1,
              )}>{say('along.leave-out')}</TextButton
          >
        </li>
      {/each}
    </ul>
  {:else if !adding}
    <p class="mt-1 text-muted">{about}</p>
  {/if}
  {#if most > mostMailed}<p class="mt-1 text-muted">{say('along.some-mailed', { most: mostMailed })}</p>{/if}
  {#if attempt.problem}<div class="mt-2"><ProblemNote problem={attempt.problem} /></div>{/if}
  {#if adding}
    {@const at = people.length}
    <form novalidate class="mt-2 space-y-3" onsubmit={(event) => void add(event)}>
      <Field label={say('along.name')} id="along-name" mend={mendOf(attempt.problem, `people[${at}].name`)}
        ><Input id="along-name" class="min-h-11" bind:value={typed.name} /></Field
      >
      <Field
        label={say('along.email')}
        id="along-email"
        mend={mendOf(attempt.problem, `people[${at}].email`) ?? mendOf(attempt.problem, 'people')}
        ><Input id="along-email" type="email" class="min-h-11" bind:value={typed.email} /></Field
      >
      <div class="flex flex-wrap gap-3">
        <ActionButton kind="main" type="submit" class="min-h-11" disabled={attempt.busy}
          >{say('along.invite')}</ActionButton
        ><ActionButton class="min-h-11" onclick={() => (adding = false)}>{say('along.dont')}</ActionButton>
      </div>
    </form>
  {:else if people.length < most}
    <ActionButton class="mt-3 min-h-11 max-md:w-full" onclick={() => (adding = true)}>{say('along.add')}</ActionButton>
  {/if}
</section>
