<script lang="ts">
  import FieldsEditor from '$lib/guests/FieldsEditor.svelte';
  import { askAnew } from '$lib/live/anew';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Fields of guests – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<h1 class="text-page mb-4">Fields of guests</h1>
<FieldsEditor fields={data.fields} onsaved={() => void askAnew()} />
