<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import MessageView from '$lib/post/MessageView.svelte';
  import PostRow from '$lib/post/PostRow.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { TypedSearch } from '$lib/ui/TypedSearch.svelte';
  import ListNav from '$lib/ui/ListNav.svelte';
  import { putPlace, type ListPlace } from '$lib/ui/listPlace';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  const search = new TypedSearch(() => data.search);

  interface Shown {
    state: Schemas['MessageState'] | 'all';
    search: string;
    place: ListPlace;
    message: string | undefined;
  }

  function show(next: Partial<Shown>): void {
    const all: Shown = { state: data.state ?? 'all', search: search.text, place: {}, message: undefined, ...next };
    const query = new URLSearchParams();
    if (all.state !== 'all') query.set('state', all.state);
    search.text = all.search;
    if (all.search) query.set('search', all.search);
    putPlace(query, all.place);
    if (all.message) query.set('message', all.message);
    void goto(query.size > 0 ? `?${query}` : '?', {
      replaceState: true,
      keepFocus: true,
      noScroll: next.place === undefined || next.place === data.place,
    });
  }
</script>

<svelte:head><title>Post – Loose Lantern</title></svelte:head>

<header class="mb-4 flex flex-wrap items-center gap-x-5 gap-y-3">
  <h1 class="text-page">Post</h1>
  <Segments
    label="Which messages"
    options={[
      { value: 'all', text: 'All' },
      { value: 'due', text: 'Due' },
      { value: 'sent', text: 'Sent' },
      { value: 'failed', text: 'Failed' },
    ]}
    value={data.state ?? 'all'}
    onchoose={(state) => show({ state })}
  />
  <div class="w-60">
    <Input
      type="search"
      aria-label="Search by reader or subject"
      placeholder="Reader or subject"
      class="py-1.5"
      bind:value={() => search.text, (typed) => show({ search: typed ?? '' })}
    />
  </div>
</header>

{#if !data.post.isSending}
  <p class="mb-3 rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-brick-text">
    No mail server is set up, so messages wait here. Whoever runs this site can set one up.
  </p>
{/if}
{#if data.post.total === 0}
  <div class="max-w-xl rounded-2xl border border-line bg-card p-6">
    <h2 class="text-xl">
      {data.search ? `Nothing matches “${data.search}”` : data.state ? 'No such message' : 'No post yet'}
    </h2>
    <p class="mt-1 text-muted">
      Every message to guests and hosts is listed here as its reader gets it: invitations, changes, cancellations.
    </p>
  </div>
{:else}
  <div class="grid items-start gap-5 {data.message ? 'lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]' : ''}">
    <div>
      <ul class="overflow-hidden rounded-2xl border border-line bg-card">
        {#each data.post.rows as row (row.id)}
          <PostRow
            {row}
            zone={data.me.zone}
            isOpened={row.id === data.message?.row.id}
            onopen={() => show({ place: data.place, message: row.id })}
          />
        {/each}
      </ul>
      <ListNav
        label="More post"
        list={data.post}
        shown={data.post.rows.length}
        back="Later"
        on="Earlier"
        onplace={(place) => show({ place })}
      />
    </div>
    {#if data.message}
      {#key data.message.row.id}
        <MessageView message={data.message} zone={data.me.zone} onclose={() => show({ place: data.place })} />
      {/key}
    {/if}
  </div>
{/if}
