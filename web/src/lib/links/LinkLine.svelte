<script lang="ts">
  import { putOnClipboard, type Copied } from '$lib/ui/clipboard';
  import type { Schemas } from '$lib/api/client';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { dayAndTime, standing, states, waiting } from './words';

  interface Props {
    row: Schemas['LinkRow'];
    now: string;
    zone: string;
    mayEdit: boolean;
    onask: () => void;
  }

  let { row, now, zone, mayEdit, onask }: Props = $props();

  let copied = $state<Copied>('not yet');
  const isOut = $derived(row.state === 'out' || row.state === 'opened');
  const looks: Record<Schemas['LinkState'], string> = {
    draft: 'border-dashed border-edge text-muted',
    out: 'border-glow bg-glow-tint text-on-tint',
    opened: 'border-glow bg-glow-tint text-on-tint',
    booked: 'border-sea-tint bg-sea-tint text-sea-text',
    ended: 'border-edge text-muted',
    revoked: 'border-edge text-muted line-through',
  };

  async function copy(): Promise<void> {
    if (row.path !== null) copied = await putOnClipboard(location.origin + row.path);
  }
</script>

<li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2.5 first:border-t-0">
  <span class="w-20 shrink-0"
    ><span class="rounded-full border px-2.5 py-0.5 text-sm font-semibold {looks[row.state]}">{states[row.state]}</span
    ></span
  >
  <div class="min-w-0 flex-1">
    <a class="font-semibold underline decoration-line-strong underline-offset-4" href="/work/links/{row.id}"
      >{row.isAmongOurselves ? row.title : row.guests.length > 0 ? row.guests.join(', ') : 'nobody yet'}</a
    >
    {#if !row.isAmongOurselves}<span>{row.title}</span>{:else}<span class="text-muted">among ourselves</span>{/if}
    <p class="text-sm text-muted">
      with {row.hosts.map((seat) => seat.join(' or ')).join(', ')}{row.madeBy
        ? `; made by ${row.madeBy}`
        : ''}{row.held > 0
        ? `; ${row.held} held${row.holdUntil ? ` until ${dayAndTime(row.holdUntil, zone)}` : ''}`
        : ''}{row.wishes > 0 ? `; ${row.wishes === 1 ? 'one other time' : `${row.wishes} other times`} wished` : ''}
    </p>
  </div>
  <div class="w-64 text-sm max-md:w-full {row.noneLeft ? 'text-brick' : 'text-muted'}">
    <p>{standing(row, now, zone)}</p>
    {#if row.waitsSince}<p>{waiting(row, now)}</p>{/if}
  </div>
  <div class="flex w-[330px] flex-wrap justify-end gap-1.5 max-lg:w-auto">
    {#if isOut}<ActionButton class="py-1" onclick={() => void copy()}
        ><span class="sr-only">Copy the address for {row.guests.join(', ')}: </span>{copied === 'copied'
          ? 'Copied'
          : copied === 'refused'
            ? 'Not allowed'
            : 'Copy address'}</ActionButton
      >{/if}
    {#if isOut && mayEdit}<ActionButton class="py-1" onclick={onask}
        ><span class="sr-only">{row.guests.join(', ')}: </span>Ask again</ActionButton
      >{/if}
    <ActionButton class="py-1" href="/work/links/new?link={row.id}"
      ><span class="sr-only">{row.title}: </span>Repeat</ActionButton
    >
  </div>
</li>
