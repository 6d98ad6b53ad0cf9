<script lang="ts">
  import { goto } from '$app/navigation';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { Input } from 'flowbite-svelte';
  import PageLine from '$lib/pages/PageLine.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import Segments from '$lib/ui/Segments.svelte';
  import { TypedSearch } from '$lib/ui/TypedSearch.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const search = new TypedSearch(() => data.search);
  const kinds = $derived(data.me.kinds.filter((name) => data.pages.kinds.includes(name)));
  const byDesk = $derived(
    data.desks
      .map((desk) => ({ desk, pages: data.pages.rows.filter((page) => page.deskId === desk.id) }))
      .filter((group) => group.pages.length > 0),
  );
  const isNarrowed = $derived(data.kind !== '' || data.search !== '');

  function show(next: { kind?: string; search?: string; archived?: boolean; place?: ListPlace }): void {
    const query = new URLSearchParams();
    const chosen = { kind: data.kind, search: search.text, archived: data.archived, place: {}, ...next };
    if (chosen.kind) query.set('kind', chosen.kind);
    search.text = chosen.search;
    if (chosen.search) query.set('search', chosen.search);
    if (chosen.archived) query.set('archived', '');
    putPlace(query, chosen.place);
    void goto(query.size > 0 ? `?${query}` : '?', {
      replaceState: true,
      keepFocus: true,
      noScroll: next.place === undefined,
    });
  }

  const importing = new Attempt();

  async function take(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    const form = new FormData();
    form.append('file', file);
    let made: Schemas['PageView'] | undefined;
    await importing.run(
      async () =>
        (made = await must(
          api.POST('/api/pages/import', { body: form as never, bodySerializer: (body: unknown) => body as FormData }),
        )),
    );
    input.value = '';
    if (made) await goto(`/work/pages/${made.id}`);
  }
</script>

<svelte:head><title>Pages – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
    <h1 class="text-page">{data.archived ? 'Archived pages' : 'Pages'}</h1>
    {#if kinds.length > 0}<Segments
        label="Kind"
        options={[{ value: '', text: 'All' }, ...kinds.map((name) => ({ value: name, text: name }))]}
        value={data.kind}
        onchoose={(name) => show({ kind: name })}
      />{/if}
    {#if data.pages.total > 0 || isNarrowed}<div class="w-52">
        <Input
          type="search"
          aria-label="Search by title"
          placeholder="Title"
          class="py-1.5"
          bind:value={() => search.text, (typed) => show({ search: typed ?? '' })}
        />
      </div>{/if}
  </div>
  <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
    <a href="/work/desks" class="inline-flex min-h-9 items-center underline underline-offset-4">Desks</a>
    {#if data.me.isCoordinator}
      <label class="inline-flex min-h-9 cursor-pointer items-center underline underline-offset-4 focus-within:outline-3"
        >Import a page<input
          type="file"
          accept=".json,application/json"
          class="sr-only"
          onchange={(event) => void take(event.currentTarget)}
        /></label
      >
      <ActionButton kind="main" href="/work/pages/new">New page</ActionButton>
    {/if}
  </div>
</header>

{#if importing.problem}
  <div class="mb-4">
    <ProblemNote problem={importing.problem}>
      {#if importing.problem.errors}<ul class="mt-1">
          {#each Object.entries(importing.problem.errors) as [field, mends] (field)}<li>
              <code>{field}</code>: {mends.join(' ')}
            </li>{/each}
        </ul>{/if}
    </ProblemNote>
  </div>
{/if}

{#if data.pages.total === 0 && (isNarrowed || data.archived)}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">
      {data.search
        ? `Nothing matches “${data.search}”`
        : data.archived
          ? 'Nothing is archived'
          : 'No page of this kind'}
    </h2>
    <ActionButton class="mt-4" onclick={() => show({ kind: '', search: '', archived: false })}>Show all</ActionButton>
  </div>
{:else if data.pages.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">No page yet</h2>
    <p class="mt-1 mb-4 text-muted">
      A page offers one kind of appointment. Say who is booked, how long it takes and when it may be; guests then choose
      among the open times.
    </p>
    {#if data.me.isCoordinator}<ActionButton kind="main" href="/work/pages/new">Make the first page</ActionButton>{/if}
  </div>
{:else}
  <div class="space-y-6">
    {#each byDesk as group (group.desk.id)}
      <section aria-labelledby="desk-{group.desk.id}">
        <h2 id="desk-{group.desk.id}" class="mb-1.5 text-lg">
          {group.desk.name}
          <a
            class="font-sans text-sm font-normal text-muted underline underline-offset-4"
            href="/{group.desk.address}"
            target="_blank"
            rel="noopener">{group.desk.address}</a
          >
        </h2>
        <ul class="overflow-hidden rounded-2xl border border-line bg-card">
          {#each group.pages as page (page.id)}<PageLine {page} />{/each}
        </ul>
      </section>
    {/each}
  </div>
  <ListNav label="More pages" list={data.pages} shown={data.pages.rows.length} onplace={(place) => show({ place })} />
{/if}
{#if data.archived}
  <p class="mt-5">
    <a href="/work/pages" class="inline-flex min-h-9 items-center underline underline-offset-4">Pages in use</a>
  </p>
{:else if data.pages.archived > 0}
  <p class="mt-5">
    <a href="/work/pages?archived" class="inline-flex min-h-9 items-center underline underline-offset-4"
      >Archived ({data.pages.archived})</a
    >
  </p>
{/if}
