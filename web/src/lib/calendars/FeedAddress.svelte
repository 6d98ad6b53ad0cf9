<script lang="ts">
  import { Radio } from 'flowbite-svelte';
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import SecretAddress from './SecretAddress.svelte';

  /** Whether the reader may have all of the workspace's bookings, and whether they have any of their own. */
  let { mayHaveAll, hasOwn }: { mayHaveAll: boolean; hasOwn: boolean } = $props();

  // Only where the choice starts.
  // svelte-ignore state_referenced_locally
  let which = $state(hasOwn ? 'own' : 'all');
</script>

<SecretAddress
  id="feed-address"
  title="Bookings in your other calendars"
  label="Address of the bookings"
  get={async () => {
    const feed = await must(api.GET('/api/me/feed'));
    if (feed.path) which = feed.all ? 'all' : 'own';
    return feed.path;
  }}
  make={async () => (await must(api.POST('/api/me/feed', { body: { all: which === 'all' } }))).path}
  stop={() => must(api.DELETE('/api/me/feed'))}
>
  A secret address to subscribe to in any calendar: {which === 'all'
    ? 'all of the workspace’s bookings'
    : 'your bookings'}, with their guests, always up to date. If you join it here too, nothing is counted twice.
  {#snippet choice()}
    {#if mayHaveAll && hasOwn}
      <Radio name="feed-of" value="own" bind:group={which}>my bookings</Radio>
      <Radio name="feed-of" value="all" bind:group={which}>all of the workspace’s</Radio>
    {/if}
  {/snippet}
</SecretAddress>
