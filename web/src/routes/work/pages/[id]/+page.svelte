<script lang="ts">
  import { page as visit } from '$app/state';
  import { createQuery } from '@tanstack/svelte-query';
  import { Skeleton } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import { EditorState } from '$lib/pages/EditorState.svelte';
  import PageEditor from '$lib/pages/PageEditor.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const id = $derived(visit.params.id ?? '');
  // Fetched once a visit: what is typed here must not be replaced by what a colleague saves; saving tells of that.
  const page = createQuery(() => ({
    queryKey: ['page', id],
    queryFn: () => must(api.GET('/api/pages/{id}', { params: { path: { id } } })),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  }));
  const hosts = createQuery(() => ({ queryKey: ['hosts'], queryFn: () => must(api.GET('/api/hosts')) }));
  const desks = createQuery(() => ({ queryKey: ['desks'], queryFn: () => must(api.GET('/api/desks')) }));
  const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => must(api.GET('/api/calendars')) }));
  const failed = $derived(page.error ?? hosts.error ?? desks.error ?? calendars.error);

  let editor = $state.raw<EditorState | undefined>(undefined);
  $effect(() => {
    if (page.data && editor?.saved?.id !== page.data.id) editor = new EditorState(page.data.form, page.data);
  });
</script>

<svelte:head><title>{page.data?.form.title ?? 'Page'} – Loose Lantern</title></svelte:head>

{#if failed}
  <ProblemNote problem={problemOf(failed)} />
{:else if editor && hosts.data && desks.data && calendars.data}
  {#key editor}
    <PageEditor {editor} hosts={hosts.data} desks={desks.data} calendars={calendars.data} mayEdit={data.me.isCoordinator} />
  {/key}
{:else}
  <Skeleton size="2xl" />
{/if}
