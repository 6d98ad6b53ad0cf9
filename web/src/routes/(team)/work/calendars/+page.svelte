<script lang="ts">
  import BusyAddress from '$lib/calendars/BusyAddress.svelte';
  import CalendarList from '$lib/calendars/CalendarList.svelte';
  import ClosesAfter from '$lib/calendars/ClosesAfter.svelte';
  import FeedAddress from '$lib/calendars/FeedAddress.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Calendars – Loose Lantern</title></svelte:head>

<CalendarList
  hosts={data.hosts}
  calendars={data.calendars}
  zone={data.me.zone}
  now={data.me.now}
  own={data.me.hostId}
  mayShare={data.me.isCoordinator}
/>
<ClosesAfter me={data.me} />
{#if data.me.hostId || data.me.isCoordinator}<FeedAddress
    mayHaveAll={data.me.isCoordinator}
    hasOwn={data.me.hostId !== null}
  />{/if}
{#if data.me.hostId}<BusyAddress />{/if}
