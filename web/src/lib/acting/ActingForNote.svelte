<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    /** The hosts whose work it is. */
    hosts: Schemas['HostView'][];
    /** The host that is the reader's own time. */
    own: string | null;
  }

  let { hosts, own }: Props = $props();

  const others = $derived(hosts.filter((host) => host.kind === 'person' && host.id !== own));
  const refusing = $derived(others.filter((host) => !host.mayOffer));
  const names = (of: Schemas['HostView'][]): string => of.map((host) => host.name).join(', ');
</script>

{#if refusing.length > 0}
  <p class="mb-3 rounded-lg border-l-4 border-edge bg-lane px-4 py-2 text-ink" data-test="not-let">
    <strong>{names(refusing)}</strong>
    {refusing.length === 1 ? 'does' : 'do'} not let you offer their time, so you can look at this and not change it. They
    can let you under “You”, “Acting for me”.
  </p>
{:else if others.length > 0}
  <p class="mb-3 rounded-lg border-l-4 border-violet bg-violet-tint px-4 py-2 text-ink" data-test="acting-for">
    Acting for <strong>{names(others)}</strong>. What you do here is kept in their record.
  </p>
{/if}
