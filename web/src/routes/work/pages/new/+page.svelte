<script lang="ts">
  import { goto } from '$app/navigation';
  import { createQuery } from '@tanstack/svelte-query';
  import { Skeleton } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { must, problemOf } from '$lib/api/problem';
  import { EditorState } from '$lib/pages/EditorState.svelte';
  import { newForm } from '$lib/pages/form';
  import PageEditor from '$lib/pages/PageEditor.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const hosts = createQuery(() => ({ queryKey: ['hosts'], queryFn: () => must(api.GET('/api/hosts')) }));
  const desks = createQuery(() => ({ queryKey: ['desks'], queryFn: () => must(api.GET('/api/desks')) }));
  const calendars = createQuery(() => ({ queryKey: ['calendars'], queryFn: () => must(api.GET('/api/calendars')) }));
  const failed = $derived(hosts.error ?? desks.error ?? calendars.error);

  let editor = $state.raw<EditorState | undefined>(undefined);
  $effect(() => {
    if (editor || !hosts.data || !desks.data) return;
    const own = hosts.data.find((host) => host.name === data.me.name) ?? hosts.data[0];
    const desk = desks.data[0];
    if (own && desk) editor = new EditorState(newForm(data.me.zone, desk.id, own.id));
  });
</script>

<svelte:head><title>New page – Loose Lantern</title></svelte:head>

{#if failed}
  <ProblemNote problem={problemOf(failed)} />
{:else if editor && hosts.data && desks.data && calendars.data}
  <PageEditor
    {editor}
    hosts={hosts.data}
    desks={desks.data}
    calendars={calendars.data}
    mayEdit={data.me.isCoordinator}
    onsaved={(page) => void goto(`/work/pages/${page.id}`, { replaceState: true })}
  />
{:else}
  <Skeleton size="2xl" />
{/if}
