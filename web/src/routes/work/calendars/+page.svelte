<script lang="ts">
  import BusyAddress from '$lib/calendars/BusyAddress.svelte';
  import CalendarList from '$lib/calendars/CalendarList.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Calendars – Loose Lantern</title></svelte:head>

<CalendarList hosts={data.hosts} calendars={data.calendars} zone={data.me.zone} own={data.me.hostId} />
{#if data.me.hostId}<BusyAddress />{/if}
