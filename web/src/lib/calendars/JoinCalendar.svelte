<script lang="ts">
  import ActingForNote from '$lib/acting/ActingForNote.svelte';
  import type { Schemas } from '$lib/api/client';
  import Segments from '$lib/ui/Segments.svelte';
  import JoinAccount from './JoinAccount.svelte';
  import JoinAddress from './JoinAddress.svelte';
  import JoinFile from './JoinFile.svelte';
  import type { Whose } from './owners';

  interface Props {
    hosts: Schemas['HostView'][];
    onjoined: () => void;
    onclose: () => void;
    /** The reader's own time; without it nobody is acted for. */
    own?: string | null;
    mayShare?: boolean;
    leave?: string;
    first?: 'account' | 'address' | 'file';
  }

  let { hosts, onjoined, onclose, own, mayShare = false, leave = 'Cancel', first = 'account' }: Props = $props();

  // Only where the choice starts.
  // svelte-ignore state_referenced_locally
  let kind = $state(first);
  // Only where the choice starts.
  // svelte-ignore state_referenced_locally
  let whose = $state<Whose>({ hostId: (hosts.find((host) => host.id === own) ?? hosts[0])?.id ?? '', hostIds: [] });
  const acted = $derived(hosts.filter((host) => host.id === whose.hostId || whose.hostIds.includes(host.id)));
</script>

<section aria-label="Join a calendar" class="mb-4 rounded-2xl border border-line bg-card p-5">
  <div class="mb-4 flex flex-wrap items-center gap-3">
    <Segments
      label="Where the calendar is"
      options={[
        { value: 'account', text: 'An account' },
        { value: 'address', text: 'An address' },
        { value: 'file', text: 'A file' },
      ]}
      value={kind}
      onchoose={(value) => (kind = value)}
    />
    {#if own !== undefined}<ActingForNote hosts={acted} {own} />{/if}
  </div>
  {#if kind === 'account'}
    <JoinAccount {hosts} bind:whose {mayShare} {onjoined} {onclose} {leave} />
  {:else if kind === 'address'}
    <JoinAddress {hosts} bind:whose {mayShare} {onjoined} {onclose} {leave} />
  {:else}
    <JoinFile {hosts} bind:whose {mayShare} {onjoined} {onclose} {leave} />
  {/if}
</section>
