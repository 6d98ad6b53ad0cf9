<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import PictureField from '$lib/desks/PictureField.svelte';
  import { placeKinds } from '$lib/guest/place';
  import Field from '$lib/ui/Field.svelte';
  import { languages } from '$lib/you/choices';
  import DurationChips from './DurationChips.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualDetails } from './form';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { NIGHT } from '$lib/ui/accent';

  /** @prop kinds The workspace's own list of sorts of appointments. */
  let { editor, desks, kinds }: { editor: EditorState; desks: Schemas['DeskView'][]; kinds: readonly string[] } =
    $props();

  const details = $derived(editor.form.details ?? usualDetails());
  const edge = (isChanged: boolean): string => (isChanged ? 'border-l-4 border-l-ink' : '');
  const placeHint = $derived(
    {
      inPerson: 'where',
      phone: details.place.hostsRing ? 'what to say about the call' : 'the number that guests call',
      video: 'its address; empty for a room of its own each time',
      ownWords: 'where, or how',
    }[editor.form.placeKind],
  );

  onMount(() => void editor.lookAtPicture());

  function setNaming(change: Partial<typeof details.naming>): void {
    editor.form.details = { ...details, naming: { ...details.naming, ...change } };
  }

  function setFace(change: Partial<typeof details.face>): void {
    editor.form.details = { ...details, face: { ...details.face, ...change } };
  }

  function setPlace(change: Partial<typeof details.place>): void {
    editor.form.details = { ...details, place: { ...details.place, ...change } };
  }
</script>

<Section title="Appointment">
  <Field label="Title, as guests read it" id="title" mend={editor.mend('title')}>
    <Input
      id="title"
      bind:value={() => editor.form.title, (title) => editor.setTitle(title)}
      class={edge(editor.differs((form) => form.title))}
    />
  </Field>
  <Sentence
    mends={[editor.mend('details.naming.name'), editor.mend('details.naming.kind'), editor.mend('details.naming.mark')]}
  >
    internal name
    <span class="min-w-44 flex-1"
      ><Input
        id="inside-name"
        aria-label="Internal name"
        placeholder={editor.form.title || 'the same'}
        class="py-1.5 {edge(editor.differs((form) => form.details?.naming.name))}"
        bind:value={() => details.naming.name, (name) => setNaming({ name: name ?? '' })}
      /></span
    >
    {#if kinds.length > 0}
      kind <span class="w-40"
        ><Select
          aria-label="Kind"
          classes={{ select: 'py-1.5' }}
          placeholder=""
          bind:value={() => details.naming.kind, (kind) => setNaming({ kind })}
          items={[{ value: '', name: 'none' }, ...kinds.map((kind) => ({ value: kind, name: kind }))]}
        /></span
      >
    {/if}
    mark
    <span class="w-16"
      ><Input
        aria-label="Mark, two letters"
        maxlength={2}
        placeholder={editor.saved?.mark ?? ''}
        class="py-1.5"
        bind:value={() => details.naming.mark ?? '', (mark) => setNaming({ mark: mark ? mark : null })}
      /></span
    >
  </Sentence>
  <Field label="Address" id="address" mend={editor.mend('address') ?? editor.mend('deskId') ?? editor.addressMend}>
    <div class="flex items-center gap-2 max-md:flex-wrap">
      <Select
        aria-label="Desk"
        class="w-56 shrink-0 max-md:w-64"
        placeholder=""
        bind:value={editor.form.deskId}
        onchange={() => void editor.checkAddress()}
        items={desks.map((desk) => ({ value: desk.id, name: desk.address }))}
      />
      <span class="text-muted">/</span>
      <Input
        id="address"
        bind:value={() => editor.form.address, (address) => editor.setAddress(address)}
        onblur={() => void editor.checkAddress()}
        class={edge(editor.differs((form) => form.address))}
      />
    </div>
  </Field>
  <Sentence mends={[...editor.mendsUnder('times.durations')]}>
    takes <DurationChips bind:durations={() => editor.form.times.durations, (next) => editor.setDurations(next)} />
  </Sentence>
  <Sentence mends={[editor.mend('place'), editor.mend('placeKind')]}>
    <Select
      aria-label="Kind of place"
      class="w-36"
      placeholder=""
      bind:value={editor.form.placeKind}
      items={placeKinds.map((kind) => ({ value: kind.value, name: kind.text }))}
    />
    <Input
      id="place"
      aria-label="Place"
      placeholder={placeHint}
      bind:value={editor.form.place}
      class="min-w-48 flex-1 {edge(editor.differs((form) => form.place))}"
    />
  </Sentence>
  {#if editor.form.placeKind === 'inPerson'}
    <Field label="How to get there" id="directions" mend={editor.mend('details.place.directions')}>
      <Textarea
        id="directions"
        rows={2}
        class="w-full"
        bind:value={() => details.place.directions, (directions) => setPlace({ directions: directions ?? '' })}
      />
    </Field>
  {:else if editor.form.placeKind === 'phone'}
    <Sentence>
      <span class="w-56"
        ><Select
          aria-label="Who calls"
          classes={{ select: 'py-1.5' }}
          placeholder=""
          bind:value={
            () => (details.place.hostsRing ? 'hosts' : 'guest'), (who) => setPlace({ hostsRing: who === 'hosts' })
          }
          items={[
            { value: 'hosts', name: 'we call the guest' },
            { value: 'guest', name: 'the guest calls us' },
          ]}
        /></span
      >
      {details.place.hostsRing ? 'the form asks for their number' : ''}
    </Sentence>
  {/if}
  <Field
    label="Description"
    id="description"
    hint="Markdown: **bold**, lists, [links](https://…)"
    mend={editor.mend('description')}
  >
    <Textarea id="description" rows={3} class="w-full" bind:value={editor.form.description} />
  </Field>
  <Sentence mends={[editor.mend('details.face.language'), editor.mend('details.face.accent')]}>
    in
    <span class="w-52"
      ><Select
        aria-label="Language of the page"
        classes={{ select: 'py-1.5' }}
        placeholder=""
        bind:value={() => details.face.language, (language) => setFace({ language })}
        items={[{ value: '', name: 'each reader’s language' }, ...languages]}
      /></span
    >
    accent
    <span class="inline-flex items-center gap-1.5">
      <input
        type="color"
        aria-label="Accent"
        class="h-9 w-12 rounded border border-line-strong bg-card"
        value={details.face.accent || NIGHT}
        onchange={(event) => setFace({ accent: event.currentTarget.value })}
      />
      {#if details.face.accent}<TextButton class="min-h-9" onclick={() => setFace({ accent: '' })}
          >use the desk’s</TextButton
        >{:else}as its desk{/if}
    </span>
  </Sentence>
  {#if editor.saved}
    {@const id = editor.saved.id}
    <div id="page-picture" tabindex="-1">
      <PictureField
        label="Picture (saved at once)"
        isWide
        picture={editor.picture ?? null}
        set={(body) =>
          must(
            api.PUT('/api/pages/{id}/picture', {
              params: { path: { id } },
              body: body as never,
              bodySerializer: (form: unknown) => form as FormData,
            }),
          )}
        remove={() => must(api.DELETE('/api/pages/{id}/picture', { params: { path: { id } } }))}
        onchanged={() => void editor.lookAtPicture()}
      />
    </div>
  {/if}
  <div class="flex flex-wrap gap-x-5">
    <Choice class="inline-flex min-h-9"
      ><input
        type="checkbox"
        class="rounded border-edge"
        checked={details.face.showsHosts}
        onchange={() => setFace({ showsHosts: !details.face.showsHosts })}
      /> show guests who the hosts are</Choice
    >
    <Choice class="inline-flex min-h-9"
      ><input
        type="checkbox"
        class="rounded border-edge"
        checked={details.face.isListed}
        onchange={() => setFace({ isListed: !details.face.isListed })}
      /> list it on its desk</Choice
    >
  </div>
</Section>
