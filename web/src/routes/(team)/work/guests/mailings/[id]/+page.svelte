<script lang="ts">
  import { askAnew } from '$lib/live/anew';
  import AskMailingAgain from '$lib/mailings/AskMailingAgain.svelte';
  import MailingStandings from '$lib/mailings/MailingStandings.svelte';
  import { standingInWords } from '$lib/mailings/mailing';
  import { dateIn, dayMonth, timeOf } from '$lib/time/format';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const row = $derived(data.mailing.row);
  const at = (instant: string): string =>
    `${dayMonth(dateIn(instant, data.me.zone))}, ${timeOf(instant, data.me.zone)}`;
</script>

<svelte:head><title>{row.title}, mailing – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests/mailings">Mailings</a></p>
<h1 class="text-page wrap-anywhere">{row.title}</h1>
<p class="mb-1 text-lg" role="status">{standingInWords(row)}</p>
<p class="mb-4 text-muted">
  Sent {at(row.sentAt)}{row.madeBy ? ` by ${row.madeBy}` : ''}{row.startedFrom
    ? `, from ${row.startedFrom}`
    : ''}{row.askedAgainAt ? `; asked again ${at(row.askedAgainAt)}` : ''}
</p>
{#if row.silent > 0}
  <section class="mb-5 rounded-2xl border border-line bg-card p-5" aria-label="Ask again">
    <AskMailingAgain {row} onasked={() => void askAnew()} />
  </section>
{/if}
<MailingStandings guests={data.mailing.guests} zone={data.me.zone} />
