<script lang="ts">
  import { Checkbox, Input, Select } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { cityOf } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import { clocks, languages } from '$lib/you/choices';
  import PortraitField from '$lib/you/PortraitField.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const form = $state({ ...data.profile });
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  let told = $state('');

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    await attempt.run(async () => {
      await must(api.PUT('/api/me/profile', { body: form }));
      told = 'Saved.';
      await askAnew();
    });
  }
</script>

<svelte:head><title>Profile – Loose Lantern</title></svelte:head>

<form novalidate class="space-y-4 rounded-2xl border border-line bg-card p-5" onsubmit={(event) => void save(event)}>
  {#if problem}<ProblemNote {problem} />{/if}
  <PortraitField person={{ id: data.me.id, name: data.me.name, hasPortrait: data.me.hasPortrait }} />
  <Field label="Name" id="you-name" mend={mendOf(problem, 'name')}><Input id="you-name" bind:value={form.name} /></Field
  >
  <Field label="A line about you, for guests" id="you-line" mend={mendOf(problem, 'line')}
    ><Input id="you-line" bind:value={form.line} /></Field
  >
  <Field
    label="Time zone"
    id="you-zone"
    hint={`It is ${timeOf(data.me.now, form.zone)} in ${cityOf(form.zone)} now. Whole days of your calendars are read in it.`}
    mend={mendOf(problem, 'zone')}
  >
    <ZoneSelect id="you-zone" bind:value={form.zone} />
  </Field>
  <div class="flex flex-wrap gap-6">
    <Field label="Language we write to you in" id="you-language" mend={mendOf(problem, 'language')}>
      <Select id="you-language" class="w-48" placeholder="" bind:value={form.language} items={languages} />
    </Field>
    <div>
      <p class="mb-1">Clock</p>
      <Segments label="Clock" options={clocks} value={form.clock} onchoose={(clock) => (form.clock = clock)} />
    </div>
  </div>
  <Checkbox bind:checked={form.usesKeys}
    >Keys: / finds, . presses the screen’s main button, ? lists what works there</Checkbox
  >
  <div class="flex items-center gap-3">
    <ActionButton kind="main" type="submit">Save profile</ActionButton><span role="status" class="text-muted"
      >{told}</span
    >
  </div>
</form>
