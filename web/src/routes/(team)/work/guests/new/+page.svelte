<script lang="ts">
  import { goto } from '$app/navigation';
  import EditGuest from '$lib/guests/EditGuest.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>New guest – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<h1 class="text-page mb-4">New guest</h1>
<div class="max-w-3xl">
  <EditGuest
    people={data.people}
    fields={data.fields}
    onsaved={(guest) => void goto(`/work/guests/${guest.id}`)}
    oncancel={() => void goto('/work/guests')}
  />
</div>
