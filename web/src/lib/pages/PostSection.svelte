<script lang="ts">
  import { Checkbox, Input, Select, Textarea } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { EditorState } from './EditorState.svelte';
  import { usualPost } from './form';
  import LengthField from './LengthField.svelte';
  import PageFiles from './PageFiles.svelte';
  import PostPreview from './PostPreview.svelte';
  import Section from './Section.svelte';
  import Sentence from './Sentence.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { editor, tokens }: { editor: EditorState; tokens: Schemas['TokenView'][] } = $props();

  type Mail = Schemas['PreviewedMail'];

  const post = $derived(editor.form.post ?? usualPost());
  const mails: { value: Mail; text: string }[] = [
    { value: 'booked', text: 'Booked' },
    { value: 'moved', text: 'Moved' },
    { value: 'cancelled', text: 'Cancelled' },
    { value: 'reminder', text: 'Reminder' },
  ];
  const said = [
    { key: 'saysDescription', text: 'the description' },
    { key: 'saysDirections', text: 'how to get there' },
    { key: 'saysAfterwards', text: 'the message after booking' },
  ] as const;
  let mail = $state<Mail>('booked');
  const own = $derived(post[mail]);

  function set(change: Partial<typeof post>): void {
    editor.form.post = { ...post, ...change };
  }

  // The box begins with our words; as long as they stand there unchanged, they are ours, in each guest's language.
  let ours = $state.raw<Schemas['OurWords'] | undefined>(undefined);
  const language = $derived(editor.form.details?.face.language ?? '');
  const begins = $derived(ours?.[mail] ?? { subject: '', body: '' });

  $effect(() => {
    const asked = language;
    void api.GET('/api/post-words', { params: { query: { language: asked || 'en' } } }).then(({ data }) => {
      if (asked === language && data) ours = data;
    });
  });

  function setOwn(part: 'subject' | 'body', typed: string): void {
    const next = { ...(own ?? { subject: '', body: '' }), [part]: typed === begins[part] ? '' : typed };
    set({ [mail]: next.subject === '' && next.body === '' ? null : next });
  }

  function setReminder(at: number, minutes: number): void {
    set({ reminders: post.reminders.map((other, i) => (i === at ? minutes : other)) });
  }

  function setLink(at: number, change: Partial<Schemas['PostLink']>): void {
    set({ links: post.links.map((link, i) => (i === at ? { ...link, ...change } : link)) });
  }
</script>

<Section title="Mail">
  <Sentence mends={editor.mendsUnder('post.toGuests')}>
    guests get
    <Select
      aria-label="What guests get"
      class="w-72 py-1.5"
      placeholder=""
      bind:value={() => post.toGuests, (toGuests) => set({ toGuests })}
      items={[
        { value: 'invitation', name: 'mail with an invitation' },
        { value: 'plain', name: 'mail without an invitation' },
        { value: 'none', name: 'no mail at all' },
      ]}
    />
  </Sentence>
  <Sentence mends={editor.mendsUnder('post.reminders')}>
    {#if post.reminders.length === 0}nobody is reminded{:else}guests and hosts are reminded{/if}
    {#each post.reminders as minutes, at (at)}
      <span class="inline-flex items-center gap-1.5">
        <LengthField
          id="reminder-{at}"
          label="Reminder {at + 1} before the start"
          bind:value={() => minutes, (next) => setReminder(at, next)}
        />
        <TextButton
          class="min-h-9 px-1.5"
          aria-label="Remove reminder {at + 1}"
          onclick={() => set({ reminders: post.reminders.filter((_, i) => i !== at) })}>×</TextButton
        >
      </span>
    {/each}
    {#if post.reminders.length > 0}before{/if}
    {#if post.reminders.length < 5}<ActionButton
        id="reminders"
        kind="quiet"
        class="py-1"
        onclick={() => set({ reminders: [...post.reminders, 120] })}>Another reminder</ActionButton
      >{/if}
  </Sentence>
  {#if post.toGuests !== 'none'}
    <fieldset>
      <legend class="mb-1">Include in guests’ mail and calendars</legend>
      <div class="flex flex-wrap gap-x-5">
        {#each said as { key, text } (key)}
          <Choice class="inline-flex min-h-9"
            ><Checkbox
              checked={post[key] ?? true}
              onchange={(event) => set({ [key]: event.currentTarget.checked })}
            />{text}</Choice
          >
        {/each}
      </div>
    </fieldset>
  {/if}
  <Field label="Note for hosts, in their mail and calendars" id="host-words" mend={editor.mend('post.hostWords')}>
    <Textarea
      id="host-words"
      rows={2}
      class="w-full"
      bind:value={() => post.hostWords, (hostWords) => set({ hostWords: hostWords ?? '' })}
    />
  </Field>
  <div>
    <p class="mb-1">Links to include</p>
    {#each post.links as link, at (at)}
      <Sentence mends={[...editor.mendsUnder(`post.links[${at}]`)]}>
        <span class="w-44"
          ><Input
            aria-label="What is behind link {at + 1}"
            placeholder="what it is"
            class="py-1.5"
            bind:value={() => link.title, (title) => setLink(at, { title: title ?? '' })}
          /></span
        >
        <span class="min-w-56 flex-1"
          ><Input
            aria-label="Address of link {at + 1}"
            placeholder="https://"
            class="py-1.5"
            bind:value={() => link.address, (address) => setLink(at, { address: address ?? '' })}
          /></span
        >
        <TextButton
          class="min-h-9 px-1.5"
          aria-label="Remove link {at + 1}"
          onclick={() => set({ links: post.links.filter((_, i) => i !== at) })}>×</TextButton
        >
      </Sentence>
    {/each}
    {#if post.links.length < 10}<ActionButton
        kind="quiet"
        class="py-1"
        onclick={() => set({ links: [...post.links, { title: '', address: '' }] })}>Add a link</ActionButton
      >{/if}
  </div>
  {#if editor.saved}<PageFiles pageId={editor.saved.id} />{/if}

  <div class="rounded-xl border border-line p-3">
    <div class="flex flex-wrap items-center gap-3">
      <p>Your own wording</p>
      <Segments label="Which mail" options={mails} value={mail} onchoose={(chosen) => (mail = chosen)} />
    </div>
    <p class="mt-2 text-sm text-muted">
      Change the subject, the text or both. What you leave as it is goes out in each guest’s language; what you change
      goes out as you wrote it.
    </p>
    <div class="mt-2 space-y-2">
      <Field label="Subject" id="own-subject" mend={editor.mend(`post.${mail}.subject`)}>
        <Input
          id="own-subject"
          bind:value={() => own?.subject || begins.subject, (subject) => setOwn('subject', subject ?? '')}
        />
      </Field>
      <Field label="Text" id="own-body" mend={editor.mend(`post.${mail}.body`)}>
        <Textarea
          id="own-body"
          rows={12}
          class="w-full"
          bind:value={() => own?.body || begins.body, (body) => setOwn('body', body ?? '')}
        />
      </Field>
      {#if own}<TextButton class="min-h-9" onclick={() => set({ [mail]: null })}>Use our words again</TextButton>{/if}
      {#if post.toGuests === 'invitation'}
        <Field label="Title in guests’ calendars" id="event-title" mend={editor.mend('post.eventTitle')}>
          <Input
            id="event-title"
            placeholder={'{{ page }}, {{ workspace }}'}
            bind:value={() => post.eventTitle, (eventTitle) => set({ eventTitle: eventTitle ?? '' })}
          />
        </Field>
        <Field
          label="Text in guests’ calendars"
          id="event-text"
          hint="If the private link is missing, it is added at the end."
          mend={editor.mend('post.eventText')}
        >
          <Textarea
            id="event-text"
            rows={3}
            class="w-full"
            bind:value={() => post.eventText, (eventText) => set({ eventText: eventText ?? '' })}
          />
        </Field>
      {/if}
      <details>
        <summary class="cursor-pointer underline underline-offset-4">Placeholders you can use</summary>
        <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-sm">
          {#each tokens as token (token.name)}<dt><code>{'{{ '}{token.name}{' }}'}</code></dt>
            <dd class="text-muted">{token.meaning}</dd>{/each}
        </dl>
      </details>
      {#if editor.saved}<PostPreview pageId={editor.saved.id} {post} {mail} />{/if}
    </div>
  </div>
</Section>
