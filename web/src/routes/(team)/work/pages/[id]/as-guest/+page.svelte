<script lang="ts">
  import { onDestroy } from 'svelte';
  import GuestPage from '$lib/guest/GuestPage.svelte';
  import { previewSource } from '$lib/guest/source';
  import { setLocale } from '$lib/time/format';
  import { speak } from '$lib/words/speak';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // The team's own screens are in English, and dates there are written as the browser writes them.
  onDestroy(() => void speak('en').then(() => setLocale(undefined)));
</script>

<svelte:head><title>{data.page.title} as a guest sees it – Loose Lantern</title></svelte:head>

<div class="-mx-4 md:-mx-[26px] md:-mt-3.5">
  <p
    class="flex flex-wrap items-center justify-between gap-x-4 border-b border-line bg-violet-tint px-4 py-1.5 text-ink md:px-6"
  >
    <span><strong>As a guest sees it,</strong> with what is not published yet. Nothing is reserved for real.</span>
    <a class="inline-flex min-h-9 items-center underline underline-offset-4" href="/work/pages/{data.id}"
      >Back to the page</a
    >
  </p>
  <GuestPage source={previewSource(data.id, data.page)} />
</div>
