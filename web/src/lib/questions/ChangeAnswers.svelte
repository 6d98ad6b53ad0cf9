<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { guestApi, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { answerInWords, wordsOf } from './words';
  import QuestionFields from './QuestionFields.svelte';
  import { say } from '$lib/words/say.svelte';

  interface Props {
    secret: string;
    questions: Schemas['Question'][];
    given: Schemas['GivenAnswer'][];
    mayChange: boolean;
    onchanged: () => void;
  }

  let { secret, questions, given, mayChange, onchanged }: Props = $props();

  let changing = $state(false);
  let answers = $state<Record<string, string>>({});
  const attempt = new Attempt();

  function begin(): void {
    answers = Object.fromEntries(
      questions.map((question) => [question.key, given.find((answer) => answer.key === question.key)?.text ?? '']),
    );
    attempt.problem = undefined;
    changing = true;
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (
      !(await attempt.run(() =>
        must(
          guestApi.PUT('/api/public/bookings/{secret}/answers', { params: { path: { secret } }, body: { answers } }),
        ),
      ))
    )
      return;
    changing = false;
    onchanged();
  }
</script>

<section class="rounded-2xl border border-line bg-card p-5 md:p-7" aria-labelledby="your-answers">
  <h2 id="your-answers" class="text-xl">{say('answers.title')}</h2>
  {#if changing}
    <form novalidate class="mt-3 grid gap-4 md:grid-cols-2" onsubmit={(event) => void save(event)}>
      {#if attempt.problem}<div class="md:col-span-2">
          <ProblemNote problem={attempt.problem} />
        </div>{/if}
      <QuestionFields {questions} bind:answers problem={attempt.problem} />
      <div class="flex flex-wrap justify-end gap-3 md:col-span-2">
        <ActionButton class="min-h-11" onclick={() => (changing = false)}>{say('answers.leave')}</ActionButton>
        <ActionButton kind="main" type="submit" class="min-h-11" disabled={attempt.busy}
          >{say('answers.keep')}</ActionButton
        >
      </div>
    </form>
  {:else}
    {#if given.length > 0}
      <dl class="mt-2 space-y-2">
        {#each given as answer (answer.key)}
          <div>
            <dt class="text-muted">{wordsOf(answer)}</dt>
            <dd class="wrap-anywhere whitespace-pre-line">{answerInWords(answer)}</dd>
          </div>
        {/each}
      </dl>
    {:else}
      <p class="mt-1 text-muted">{say('answers.left-open')}</p>
    {/if}
    {#if mayChange}<ActionButton class="mt-4 min-h-11 max-md:w-full" onclick={begin}
        >{say('answers.change')}</ActionButton
      >{/if}
  {/if}
</section>
