<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { renderSVG } from 'uqr';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import { languages } from '$lib/you/choices';
  import CopyField from './CopyField.svelte';
  import { pngOf, saveAs } from './qr';

  let { page, onclose }: { page: Schemas['PageView']; onclose: () => void } = $props();

  const ways = [
    { value: 'address', text: 'Address' },
    { value: 'text', text: 'Text with times' },
    { value: 'guest', text: 'For one guest' },
    { value: 'frame', text: 'On your site' },
  ] as const;
  let way = $state<(typeof ways)[number]['value']>('address');

  const address = $derived(location.origin + page.path);
  const svg = $derived(renderSVG(address, { border: 2 }));
  const snippet = $derived(`<script async src="${location.origin}/embed.js" data-page="${page.path}"><${'/'}script>`);
  const fileName = $derived(page.path.slice(1).replace('/', '-'));

  let text = $state.raw<Schemas['OpeningsText'] | undefined>(undefined);
  let days = $state(3);
  // Where the choice starts from.
  // svelte-ignore state_referenced_locally
  let zone = $state(page.form.times.zone);
  let language = $state('en');
  const asking = new Attempt();

  $effect(() => {
    if (way !== 'text') return;
    const query = { days, zone, language };
    void asking.run(
      async () => (text = await must(api.GET('/api/pages/{id}/text', { params: { path: { id: page.id }, query } }))),
    );
  });

  let guest = $state({ name: '', email: '' });
  let personal = $state.raw<{ name: string; address: string } | undefined>(undefined);
  const making = new Attempt();

  async function make(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const { name } = guest;
    await making.run(async () => {
      const made = await must(
        api.POST('/api/pages/{id}/personal-addresses', { params: { path: { id: page.id } }, body: guest }),
      );
      personal = { name, address: location.origin + made.path };
      guest = { name: '', email: '' };
    });
  }
</script>

<Dialog title="Share “{page.form.title}”" size="md" {onclose}>
  <Segments label="How to share it" options={ways} value={way} onchoose={(value) => (way = value)} />
  {#if way === 'address'}
    <CopyField id="share-address" label="Address" value={address} />
    <div class="flex flex-wrap items-center gap-5">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here, of nothing but dark and light squares -->
      <div class="w-36 rounded-lg bg-on-dark p-1" role="img" aria-label="QR code of the address">{@html svg}</div>
      <div class="flex flex-col items-start gap-2">
        <ActionButton onclick={() => saveAs(`${fileName}.svg`, new Blob([svg], { type: 'image/svg+xml' }))}
          >Save as SVG</ActionButton
        >
        <ActionButton onclick={() => void pngOf(svg).then((png) => saveAs(`${fileName}.png`, png))}
          >Save as PNG</ActionButton
        >
      </div>
    </div>
  {:else if way === 'text'}
    <div class="flex flex-wrap items-end gap-3">
      <Field label="Days" id="share-days"
        ><Select
          id="share-days"
          class="w-24"
          placeholder=""
          bind:value={days}
          items={[1, 2, 3, 5, 10].map((value) => ({ value, name: String(value) }))}
        /></Field
      >
      <Field label="Time zone" id="share-zone"><ZoneSelect id="share-zone" class="w-56" bind:value={zone} /></Field>
      <Field label="Language" id="share-language"
        ><Select id="share-language" class="w-36" placeholder="" bind:value={language} items={languages} /></Field
      >
    </div>
    {#if asking.problem}<ProblemNote problem={asking.problem} />{/if}
    {#if text}<CopyField
        id="share-text"
        label={text.openings === 0 ? 'Nothing is open in the next weeks' : 'Text'}
        value={text.text}
        lines={12}
      />{/if}
  {:else if way === 'guest'}
    <p class="text-muted">
      Whoever opens this address isn’t asked for name and email again. Give it to this guest only.
    </p>
    <form novalidate class="grid gap-3 md:grid-cols-2" onsubmit={(event) => void make(event)}>
      {#if making.problem}<div class="md:col-span-2">
          <ProblemNote problem={making.problem} />
        </div>{/if}
      <Field label="Guest’s name" id="personal-name" mend={mendOf(making.problem, 'name')}
        ><Input id="personal-name" bind:value={guest.name} /></Field
      >
      <Field label="Guest’s email" id="personal-email" mend={mendOf(making.problem, 'email')}
        ><Input id="personal-email" type="email" bind:value={guest.email} /></Field
      >
      <div class="md:col-span-2">
        <ActionButton kind="main" type="submit" disabled={making.busy}>Make the address</ActionButton>
      </div>
    </form>
    {#if personal}<CopyField id="personal-address" label="Address for {personal.name}" value={personal.address} />{/if}
  {:else}
    <CopyField id="share-frame" label="Paste this where the page should appear" value={snippet} lines={3} />
    <p class="text-muted">
      The frame fits its height, needs no cookies, and tells the outer page <code>lantern:opened</code> and
      <code>lantern:booked</code>. Sites that may show it are named at its
      <a class="underline underline-offset-4" href="/work/desks">desk</a>.
    </p>
  {/if}
</Dialog>
