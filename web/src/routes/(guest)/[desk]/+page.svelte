<script lang="ts">
  import '../../../guest.css';
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { guestApi } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { tellHeight } from '$lib/guest/frame';
  import { hostsInWords } from '$lib/guest/inWords';
  import PageHead from '$lib/guest/PageHead.svelte';
  import { placeWords } from '$lib/guest/place';
  import { lengthOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { say, sayList } from '$lib/words/say.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const { desk } = $derived(data);

  // What was asked for beyond the first run of a desk's pages.
  let asked = $state.raw<Pick<typeof data.desk, 'address' | 'pages' | 'after'> | undefined>(undefined);
  const more = $derived(asked?.address === desk.address ? asked : undefined);
  const pages = $derived([...desk.pages, ...(more?.pages ?? [])]);
  const after = $derived(more ? more.after : desk.after);
  const attempt = new Attempt();

  onMount(tellHeight);

  async function showMore(): Promise<void> {
    await attempt.run(async () => {
      const query = { after: after ?? undefined };
      const params = { path: { desk: desk.address }, query };
      const { address, pages, after: next } = await must(guestApi.GET('/api/public/desks/{desk}', { params }));
      asked = { address, pages: [...(more?.pages ?? []), ...pages], after: next };
    });
  }

  function about(page: (typeof desk.pages)[number]): string {
    const place = placeWords(page.placeKind, page.place);
    const names = hostsInWords(page.names);
    return [sayList(page.durations.map(lengthOf), 'disjunction'), place, names && say('with-names', { names })]
      .filter((words) => words !== '')
      .join(', ');
  }
</script>

<svelte:head><title>{desk.name} – {desk.workspace}</title></svelte:head>

<PageHead
  workspace={desk.workspace}
  desk={desk.address}
  title={desk.name}
  hosts={[]}
  names=""
  accent={desk.accent}
  logo={desk.logo}
  picture={desk.banner}
/>

<main class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- made safe by the server -->
  {#if desk.intro}<div class="prose-guest max-w-3xl pt-5">{@html desk.intro}</div>{/if}
  {#if desk.pages.length === 0}
    <p class="mt-6 rounded-2xl border border-line bg-card p-6 text-muted">
      {say('desk.nothing')}
    </p>
  {:else}
    <ul class="mt-6">
      {#each pages as page (page.path)}
        <li
          class="grid gap-x-6 gap-y-1 border-t border-line py-4 last:border-b md:grid-cols-[minmax(0,1fr)_auto] md:items-center"
        >
          <div class="min-w-0">
            <h2 class="text-xl">{page.title}</h2>
            <p class="text-muted">{about(page)}</p>
            {#if page.intro}<p class="mt-1 max-w-3xl">{page.intro}</p>{/if}
          </div>
          <a
            class="inline-flex min-h-11 items-center rounded-[10px] border border-glow-soft bg-glow-tint px-4 font-bold text-on-tint hover:bg-glow-soft max-md:mt-2 max-md:justify-center"
            href={page.path}
          >
            {say('desk.see-times')}<span class="sr-only">: {page.title}</span>
          </a>
        </li>
      {/each}
    </ul>
    {#if attempt.problem}<div class="mt-4"><ProblemNote problem={attempt.problem} /></div>{/if}
    {#if after !== null}<div class="mt-5">
        <ActionButton disabled={attempt.busy} onclick={() => void showMore()}>{say('desk.more')}</ActionButton>
      </div>{/if}
  {/if}
</main>
