<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Skeleton } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import { EditorState } from '$lib/pages/EditorState.svelte';
  import PageEditor from '$lib/pages/PageEditor.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const hosts = createQuery(() => ({ queryKey: ['hosts'], queryFn: () => must(api.GET('/api/hosts')) }));
  const desks = createQuery(() => ({ queryKey: ['desks'], queryFn: () => must(api.GET('/api/desks')) }));
  const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => must(api.GET('/api/calendars')) }));
  const failed = $derived(hosts.error ?? desks.error ?? calendars.error);
  const editor = $derived(new EditorState(data.page.form, data.page));
</script>

<svelte:head><title>{data.page.form.title} – Loose Lantern</title></svelte:head>

{#if failed}
  <ProblemNote problem={problemOf(failed)} />
{:else if hosts.data && desks.data && calendars.data}
  {#key editor}
    <PageEditor {editor} hosts={hosts.data} desks={desks.data} calendars={calendars.data} mayEdit={data.me.isCoordinator} />
  {/key}
{:else}
  <Skeleton size="2xl" />
{/if}
