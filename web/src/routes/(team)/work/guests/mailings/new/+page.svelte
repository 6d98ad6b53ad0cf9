<script lang="ts">
  import WriteMailing from '$lib/mailings/WriteMailing.svelte';
  import { counted } from '$lib/time/format';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  const begun = $derived(data.begun);
</script>

<svelte:head><title>New mailing – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests/mailings">Mailings</a></p>
<h1 class="text-page mb-1">New mailing</h1>
<p class="mb-4 text-muted">
  One offer for several guests, each with a letter and a link of their own.
  {#if begun && begun.total > begun.guests.length}
    {#if begun.withoutEmail > 0}{counted(begun.withoutEmail, 'guest', 'guests')} without an email left out.{/if}
    {#if begun.total - begun.withoutEmail > begun.guests.length}Only the first {begun.guests.length} of {begun.total -
        begun.withoutEmail} are listed.{/if}
  {/if}
</p>
<WriteMailing
  begun={begun?.guests ?? []}
  letters={data.letters}
  all={data.all}
  hosts={data.hosts}
  views={data.views}
  today={data.today}
  usualUntil={data.usualUntil}
/>
