<script lang="ts">
  import WriteLetter from '$lib/letters/WriteLetter.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Letter to {data.guest.name} – Loose Lantern</title></svelte:head>

<p class="mb-1">
  <a class="text-muted underline underline-offset-4" href="/work/guests/{data.guest.id}">{data.guest.name}</a>
</p>
<h1 class="text-page mb-4 wrap-anywhere">Letter to {data.guest.name}</h1>
<WriteLetter
  guest={data.guest}
  letters={data.letters}
  all={data.all}
  hosts={data.hosts}
  today={data.today}
  usualUntil={data.usualUntil}
/>
