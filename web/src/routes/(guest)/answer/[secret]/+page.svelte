<script lang="ts">
  import '../../../../guest.css';
  import { guestApi } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import AnswerAsked from '$lib/bookings/AnswerAsked.svelte';
  import PageHead from '$lib/guest/PageHead.svelte';
  import { askAnew } from '$lib/live/anew';
  import { rangeOf } from '$lib/moving/range';
  import { answerInWords } from '$lib/questions/words';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, fullDate, timeOf } from '$lib/time/format';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const asked = $derived(data.asked);
  const path = $derived({ secret: data.secret });
  const ends = {
    guest: 'The guest withdrew it.',
    team: 'It was cancelled.',
    declined: 'It was declined.',
    lapsed: 'Nobody answered in time; the time is free again.',
  };
</script>

<svelte:head><title>{asked.guestName} asks – {asked.workspace}</title></svelte:head>

<PageHead
  workspace={asked.workspace}
  desk={asked.desk}
  title={asked.title}
  hosts={asked.hosts.map((name) => ({ name }))}
  names={asked.hosts.join(', ')}
/>

<main class="mx-auto max-w-[900px] min-w-0 space-y-6 px-[18px] pt-6 pb-16 md:px-6">
  <section class="rounded-2xl border border-line bg-card p-5 md:p-7" aria-labelledby="when">
    <h2 id="when" class="text-2xl">{fullDate(dateIn(asked.start, asked.zone))}</h2>
    <p class="font-heading text-when leading-tight font-semibold">
      {timeOf(asked.start, asked.zone)} – {timeOf(asked.end, asked.zone)}
      <span class="font-sans text-base font-normal text-muted">{cityOf(asked.zone)} time</span>
    </p>
    <p class="mt-4">
      {asked.guestName},
      <a
        class="wrap-anywhere underline underline-offset-4 max-md:inline-flex max-md:min-h-11 max-md:items-center"
        href="mailto:{asked.guestEmail}">{asked.guestEmail}</a
      >
    </p>
    {#if asked.place}<p class="text-muted">{asked.place}</p>{/if}
    {#if asked.answers.length > 0}
      <dl class="mt-4 space-y-2">
        {#each asked.answers as answer (answer.key)}
          <div>
            <dt class="text-muted">{answer.words}</dt>
            <dd class="wrap-anywhere whitespace-pre-line">{answerInWords(answer)}</dd>
          </div>
        {/each}
      </dl>
    {/if}
    {#if asked.cancelledBy}
      <p class="mt-4 font-semibold text-brick">{ends[asked.cancelledBy]}</p>
    {:else if !asked.waitsUntil}
      <p
        class="mt-4 inline-flex items-center gap-2 rounded-full bg-sea-tint px-3 py-0.5 font-semibold text-sea-text"
        role="status"
      >
        <span aria-hidden="true">✓</span>Accepted; {asked.guestName} is told
      </p>
    {/if}
  </section>
  {#if asked.waitsUntil && !asked.cancelledAt}
    <AnswerAsked
      guest={asked.guestName}
      waitsUntil={asked.waitsUntil}
      zone={asked.zone}
      now={asked.now}
      firstDate={asked.firstDate}
      load={async () =>
        (
          await must(
            guestApi.GET('/api/public/answers/{secret}/openings', {
              params: { path, query: rangeOf(asked.firstDate, asked.lastDate) },
            }),
          )
        ).openings}
      accept={() => must(guestApi.POST('/api/public/answers/{secret}/accept', { params: { path } }))}
      decline={(form) => must(guestApi.POST('/api/public/answers/{secret}/decline', { params: { path }, body: form }))}
      onanswered={() => void askAnew()}
    />
  {/if}
</main>
