<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf } from '$lib/api/problem';
  import { lookAt } from '$lib/guests/importing';
  import ImportList from '$lib/guests/ImportList.svelte';
  import ImportReview from '$lib/guests/ImportReview.svelte';
  import { askAnew } from '$lib/live/anew';
  import { counted } from '$lib/time/format';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const attempt = new Attempt();
  let preview = $state.raw<Schemas['ImportPreview'] | undefined>(undefined);
  let done = $state.raw<Schemas['ImportRow'] | undefined>(undefined);

  async function choose(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    done = undefined;
    await attempt.run(async () => {
      preview = await lookAt(file);
    });
    // The same file may be chosen again once it is mended.
    input.value = '';
  }
</script>

<svelte:head><title>Import guests – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<h1 class="text-page mb-4">Import guests</h1>

<div class="max-w-4xl">
  {#if done}
    <p role="status" class="mb-4 rounded-lg border-l-4 border-glow bg-glow-tint px-4 py-2 text-on-tint">
      Imported: {counted(done.made, 'new guest', 'new guests')}, {done.changed} changed{done.leftOut > 0
        ? `, ${done.leftOut} left out`
        : ''}.
      <a class="underline underline-offset-4" href="/work/guests?filter=%7B%22order%22%3A%22newest%22%7D">See guests</a>
    </p>
  {/if}
  {#if preview}
    {#key preview.id}
      <ImportReview
        {preview}
        fields={data.fields}
        onchange={(next) => (preview = next)}
        ondone={(row) => {
          [done, preview] = [row, undefined];
          void askAnew();
        }}
        oncancel={() => (preview = undefined)}
      />
    {/key}
  {:else}
    <section aria-label="The file" class="rounded-2xl border border-line bg-card p-5">
      {#if attempt.problem && !mendOf(attempt.problem, 'file')}<ProblemNote problem={attempt.problem} />{/if}
      <Field
        label="CSV or vCard file"
        id="guests-file"
        hint="Up to 20 MB and 50,000 rows. You see what comes in before it does."
        mend={mendOf(attempt.problem, 'file')}
        ><input
          id="guests-file"
          type="file"
          accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard"
          disabled={attempt.busy}
          class="block w-full max-w-md rounded-lg border border-line-strong bg-card p-2"
          onchange={(event) => void choose(event.currentTarget)}
        /></Field
      >
      {#if attempt.busy}<p role="status" class="mt-2 text-muted">Reading the file …</p>{/if}
    </section>
  {/if}
  <ImportList imports={data.imports} zone={data.me.zone} />
</div>
