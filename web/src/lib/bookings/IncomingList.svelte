<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { dateIn, dayMonth, dayName, timeOf } from '$lib/time/format';
  import { meanings } from './reply';

  let { incoming, zone }: { incoming: Schemas['IncomingView'][]; zone: string } = $props();
</script>

{#each incoming as mail (mail.id)}
  <article class="border-t border-line py-2.5 first:border-t-0">
    <p class="flex flex-wrap items-baseline gap-x-3">
      <span class="font-semibold">{mail.fromName === '' ? mail.fromEmail : mail.fromName}</span>
      <span class={mail.meaning === 'declines' || mail.meaning === 'wishes' ? 'font-semibold text-brick' : ''}
        >{meanings[mail.meaning]}{mail.wishStart
          ? `: ${dayName(dateIn(mail.wishStart, zone))}, ${timeOf(mail.wishStart, zone)}`
          : ''}</span
      >
      <span class="ml-auto text-sm text-muted"
        >{dayMonth(dateIn(mail.receivedAt, zone))}, {timeOf(mail.receivedAt, zone)}</span
      >
    </p>
    {#if mail.text}<p class="mt-1 wrap-anywhere whitespace-pre-line">{mail.text}</p>{/if}
    {#if mail.notUnderstood}<p class="mt-1 text-sm text-brick">{mail.notUnderstood} It changed nothing.</p>{/if}
  </article>
{:else}
  <p class="text-muted">Nothing yet. Answers to the invitation and to mail about this booking appear here.</p>
{/each}
