<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { tick } from 'svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { Looking } from '$lib/api/Looking.svelte';
  import { must } from '$lib/api/problem';
  import { groupsOf } from './results';

  interface Props {
    me: Schemas['Me'];
    /** Whether `/` leads here. */
    hasKey: boolean;
  }

  let { me, hasKey }: Props = $props();

  let typed = $state('');
  let open = $state(false);
  let answer = $state.raw<{ typed: string; found: Schemas['FindAnswer'] } | undefined>(undefined);
  let box = $state<HTMLElement | undefined>(undefined);
  let field = $state<HTMLInputElement | undefined>(undefined);
  let isFirstMeant = $state(false);
  const looking = new Looking();

  const asked = $derived(typed.trim());
  const groups = $derived(groupsOf(asked, asked === '' ? undefined : answer?.found, me));
  const count = $derived(groups.reduce((sum, group) => sum + group.found.length, 0));
  const isAnswered = $derived(answer?.typed === asked && !looking.busy);

  $effect(() => {
    if (!isFirstMeant || !isAnswered) return;
    isFirstMeant = false;
    void tick().then(() => rows()[0]?.click());
  });

  // Where one is led to, the field is empty again; emptied as one leaves, since who arrives may be typing already.
  beforeNavigate(() => close());

  export function begin(): void {
    field?.focus();
    field?.select();
  }

  function close(): void {
    [open, typed, answer, isFirstMeant] = [false, '', undefined, false];
  }

  function look(): void {
    [open, isFirstMeant] = [true, false];
    const words = asked;
    if (words === '') return;
    void looking.look(async () => {
      answer = { typed: words, found: await must(api.GET('/api/find', { params: { query: { words } } })) };
    });
  }

  const rows = (): HTMLElement[] => [...(box?.querySelectorAll<HTMLElement>('a[data-found]') ?? [])];

  function press(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      close();
      field?.focus();
      event.preventDefault();
      return;
    }
    if (event.key === 'Enter' && event.target === field) {
      // What stands first is meant, once the answer is there.
      isFirstMeant = true;
      event.preventDefault();
      return;
    }
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const all = rows();
    const at = all.findIndex((row) => row.parentElement?.contains(document.activeElement));
    const next = event.key === 'ArrowDown' ? Math.min(at + 1, all.length - 1) : at - 1;
    (all[next] ?? field)?.focus();
    event.preventDefault();
  }

  /** Looked at once all is drawn: what had the focus may be gone by the drawing itself. */
  function left(): void {
    setTimeout(() => {
      if (open && !box?.contains(document.activeElement)) open = false;
    });
  }

  /** For the field and all that is found alike. */
  function listen(node: HTMLElement): () => void {
    node.addEventListener('keydown', press);
    node.addEventListener('focusout', left);
    return () => {
      node.removeEventListener('keydown', press);
      node.removeEventListener('focusout', left);
    };
  }
</script>

<!-- One field for everything; what it finds stands under it, and the screen stays as it is. -->
<div bind:this={box} role="search" class="relative" {@attach listen}>
  <input
    bind:this={field}
    bind:value={typed}
    type="search"
    autocomplete="off"
    aria-label="Find guests, bookings, pages, links, hosts, days and settings"
    aria-expanded={open && asked !== ''}
    aria-controls="found"
    role="combobox"
    aria-autocomplete="none"
    aria-haspopup="dialog"
    placeholder={hasKey ? 'Find  /' : 'Find'}
    class="w-full rounded-lg border border-night-line bg-night-raised px-2.5 py-1.5 text-on-dark placeholder:text-on-night! placeholder:opacity-100"
    oninput={look}
    onfocus={() => (open = asked !== '')}
  />
  {#if open && asked !== ''}
    <div
      id="found"
      class="absolute top-full left-0 z-40 mt-1 max-h-[70vh] w-[min(460px,92vw)] overflow-y-auto rounded-xl border border-line-strong bg-card p-3 text-ink shadow-lg"
    >
      {#each groups as group (group.name)}
        <section aria-label={group.name} class="mb-2">
          <h2 class="font-sans text-fine font-normal text-muted">{group.name}</h2>
          <ul>
            {#each group.found as one (one.key)}
              <li class="flex flex-wrap items-baseline gap-x-3">
                <a
                  data-found
                  href={one.way}
                  class="min-h-6 min-w-0 rounded px-1 font-semibold wrap-anywhere underline decoration-line-strong underline-offset-4 focus-visible:bg-lane"
                  >{one.title}</a
                >
                {#if one.detail}<span class="min-w-0 text-fine wrap-anywhere text-muted">{one.detail}</span>{/if}
                {#if one.acts.length > 0}
                  <span class="ml-auto flex flex-wrap gap-x-3 text-fine">
                    {#each one.acts as act (act.name)}<a
                        href={act.way}
                        aria-label="{act.name}: {one.title}"
                        class="min-h-6 underline underline-offset-4">{act.name}</a
                      >{/each}
                  </span>
                {/if}
              </li>
            {/each}
          </ul>
        </section>
      {/each}
      <p role="status" class={isAnswered && count === 0 ? 'text-muted' : 'sr-only'}>
        {#if looking.problem}{looking.problem.title}{:else if isAnswered}{count === 0
            ? `Nothing is called “${asked}”. Try part of a name, an email, an address or a day.`
            : `${String(count)} found`}{/if}
      </p>
    </div>
  {/if}
</div>
