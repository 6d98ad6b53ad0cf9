<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { onMount, type Snippet } from 'svelte';

  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  interface Props {
    id: string;
    title: string;
    /** The address for screen readers. */
    label: string;
    get: () => Promise<string | null>;
    make: () => Promise<string | null>;
    stop: () => Promise<unknown>;
    children: Snippet;
    /** What is chosen before one is made. */
    choice?: Snippet;
  }

  let { id, title, label, get, make, stop, children, choice }: Props = $props();

  let path = $state<string | null | undefined>(undefined);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let copied = $state(false);
  const link = $derived(path ? location.origin + path : '');

  async function act(doing: () => Promise<string | null>): Promise<void> {
    await attempt.run(async () => {
      path = await doing();
      copied = false;
    });
  }

  onMount(() => void act(get));

  async function copy(): Promise<void> {
    await navigator.clipboard.writeText(link);
    copied = true;
  }
</script>

<section aria-labelledby={id} class="mt-6 rounded-2xl border border-line bg-card p-5">
  <h2 {id} class="text-lg">{title}</h2>
  <p class="mt-1 mb-3 text-muted">{@render children()}</p>
  {#if problem}<div class="mb-2"><ProblemNote {problem} /></div>{/if}
  {#if path}
    <div class="flex flex-wrap items-center gap-3">
      <input
        readonly
        aria-label={label}
        value={link}
        class="min-w-60 flex-1 rounded-lg border border-line bg-paper px-2 py-1.5 text-sm"
        onfocus={(event) => event.currentTarget.select()}
      />
      <ActionButton onclick={() => void copy()}>{copied ? 'Copied' : 'Copy'}</ActionButton>
      <ActionButton onclick={() => void act(make)}>Make a new address</ActionButton>
      <ActionButton kind="quiet" onclick={() => void act(async () => (await stop(), null))}>Turn it off</ActionButton>
    </div>
  {:else if path === null}
    <div class="flex flex-wrap items-center gap-4">
      {@render choice?.()}
      <ActionButton onclick={() => void act(make)}>Make an address<span class="sr-only"> – {title}</span></ActionButton>
    </div>
  {/if}
</section>
