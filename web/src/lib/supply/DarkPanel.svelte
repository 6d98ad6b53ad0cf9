<script lang="ts">
  import { minuteText } from '$lib/lanes/spans';
  import { longDate } from '$lib/time/format';
  import type { DarkQuestion, DarkStretch } from './DarkQuestion.svelte';
  import { darkSentences } from './reasons';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { question }: { question: DarkQuestion } = $props();

  function titleOf(run: DarkStretch): string {
    return run.isWhole
      ? `${longDate(run.date)} is dark`
      : `${longDate(run.date)}, ${minuteText(run.fromMinute)} to ${minuteText(run.toMinute)}`;
  }
</script>

{#if question.asked}
  <section aria-live="polite" aria-labelledby="dark" class="rounded-2xl border border-line bg-card p-4">
    <div class="flex items-start justify-between gap-3">
      <h2 id="dark" class="text-part">{titleOf(question.asked)}</h2>
      <TextButton class="min-h-7 text-sm" onclick={() => question.leave()}>Close</TextButton>
    </div>
    {#if question.problem}
      <p class="mt-1 text-brick">{question.problem.title}</p>
    {:else if question.answer}
      <ul class="mt-1.5 space-y-1.5">
        {#each darkSentences(question.answer) as sentence (sentence)}<li>{sentence}</li>{/each}
      </ul>
    {:else}
      <p class="mt-1 text-muted">Looking for the reasons…</p>
    {/if}
  </section>
{/if}
