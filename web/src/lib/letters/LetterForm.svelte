<script lang="ts">
  import { Checkbox, Input, Select, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import Blanks from './Blanks.svelte';

  interface Props {
    /** Undefined for a new one. */
    saved: Schemas['LetterView'] | undefined;
    answer: Schemas['LettersAnswer'];
    onsaved: (id: string | undefined) => void;
  }

  let { saved, answer, onsaved }: Props = $props();

  const blank: Schemas['LetterForm'] = { name: '', subject: '', body: '', isTeams: false, patternId: null };
  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let form = $state({ ...(saved?.form ?? blank) });
  const attempt = new Attempt();
  const faults = $derived(attempt.problem);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await attempt.run(async () => {
      const body = { ...form };
      const view = saved
        ? await must(
            api.PUT('/api/letters/{id}', {
              params: { path: { id: saved.id } },
              body: { version: saved.version, form: body },
            }),
          )
        : await must(api.POST('/api/letters', { body }));
      onsaved(view.id);
    });
  }

  async function remove(): Promise<void> {
    const isDone = await attempt.run(() =>
      must(api.DELETE('/api/letters/{id}', { params: { path: { id: saved?.id ?? '' } } })),
    );
    if (isDone) onsaved(undefined);
  }
</script>

<form novalidate class="space-y-4" onsubmit={(event) => void save(event)}>
  {#if faults}<ProblemNote problem={faults} />{/if}
  <div class="grid gap-4 md:grid-cols-2">
    <Field label="Name" id="letter-name" mend={mendOf(faults, 'name')}
      ><Input id="letter-name" autocomplete="off" bind:value={form.name} /></Field
    >
    <Field label="Its link starts from" id="letter-pattern" mend={mendOf(faults, 'patternId')}
      ><Select
        id="letter-pattern"
        placeholder=""
        bind:value={() => form.patternId ?? '', (id) => (form.patternId = id === '' ? null : id)}
        items={[
          { value: '', name: 'what is chosen each time' },
          ...answer.patterns.map((pattern) => ({ value: pattern.id, name: pattern.name })),
        ]}
      /></Field
    >
  </div>
  <Field label="Subject" id="letter-subject" mend={mendOf(faults, 'subject')}
    ><Input id="letter-subject" autocomplete="off" bind:value={form.subject} /></Field
  >
  <Field label="Letter" id="letter-body" mend={mendOf(faults, 'body')}
    ><Textarea id="letter-body" rows={12} class="w-full" bind:value={form.body} /></Field
  >
  <Blanks blanks={answer.blanks} onchoose={(name) => (form.body = `${form.body}{{ ${name} }}`)} />
  <Checkbox bind:checked={form.isTeams}>For the whole team</Checkbox>
  <div class="flex flex-wrap items-center gap-3">
    <ActionButton kind="main" type="submit" disabled={attempt.busy}>Save letter</ActionButton>
    {#if saved}<TextButton disabled={attempt.busy} onclick={() => void remove()}>Delete letter</TextButton>{/if}
  </div>
</form>
