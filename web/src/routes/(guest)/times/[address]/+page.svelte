<script lang="ts">
  import '../../../../guest.css';
  import { onMount } from 'svelte';
  import { guestApi } from '$lib/api/client';
  import { askAnew } from '$lib/live/anew';
  import { watchChanges } from '$lib/live/changes';
  import GuestPage from '$lib/guest/GuestPage.svelte';
  import LinkOver from '$lib/guest/LinkOver.svelte';
  import NoneSuits from '$lib/guest/NoneSuits.svelte';
  import { linkSource } from '$lib/guest/source';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const isOpen = $derived(data.link.state === 'out' || data.link.state === 'opened');

  onMount(() => {
    // What only fetches the address opens nothing; somebody who looks at it does.
    void guestApi
      .POST('/api/public/links/{address}/opened', { params: { path: { address: data.address } }, keepalive: true })
      .catch(() => undefined);
    return watchChanges(`/api/public/links/${encodeURIComponent(data.address)}/changes`, () => void askAnew());
  });
</script>

<svelte:head><title>{data.link.page.title} – {data.link.page.workspace}</title></svelte:head>

{#if isOpen && data.link.asks}
  {@const { asks } = data.link}
  <!-- Loaded only here: most links show times, and a phone need not fetch what they don't use. -->
  {#await import('$lib/guest/asked/AskFirst.svelte') then { default: AskFirst }}
    {#key data.link.page.title + data.link.page.durations.join()}
      <AskFirst address={data.address} link={data.link} {asks} />
    {/key}
  {/await}
{:else if isOpen}
  {#key data.link.page.title + data.link.page.durations.join()}
    <GuestPage source={linkSource(data.address, data.link, data.at)} openings={data.openings}>
      {#snippet beneath(guest)}<NoneSuits
          {guest}
          address={data.address}
          ask={data.link.ask}
          wished={data.link.wished}
          asksName={data.link.guests.length !== 1}
        />{/snippet}
    </GuestPage>
  {/key}
{:else}
  <LinkOver link={data.link} />
{/if}
