<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { languages } from '$lib/links/languages';
  import Field from '$lib/ui/Field.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import type { GuestEditing } from './GuestEditing.svelte';

  interface Props {
    guest: GuestEditing;
    people: { id: string; name: string }[];
    fields: Schemas['GuestFieldView'][];
  }

  let { guest, people, fields }: Props = $props();

  const MOST_EMAILS = 10;
  const form = $derived(guest.form);

  function setEmail(at: number, email: string): void {
    form.emails = form.emails.map((one, i) => (i === at ? email : one));
  }

  function setField(id: string, value: string): void {
    form.fields = { ...form.fields, [id]: value };
  }
</script>

<div class="grid items-start gap-x-4 gap-y-3 md:grid-cols-2">
  <Field label="Name" id="guest-name" mend={guest.mend('name')}
    ><Input id="guest-name" autocomplete="off" bind:value={form.name} /></Field
  >
  <Field label="Organisation" id="guest-organisation" mend={guest.mend('organisation')}
    ><Input id="guest-organisation" autocomplete="off" bind:value={form.organisation} /></Field
  >
  {#each form.emails as email, at (at)}
    <Field
      label={at === 0 ? 'Email' : `Email ${at + 1}`}
      id="guest-email-{at}"
      mend={guest.mend(`emails[${at}]`) ?? (at === 0 ? guest.mend('emails') : undefined)}
    >
      <span class="flex items-center gap-2">
        <Input
          id="guest-email-{at}"
          type="email"
          autocomplete="off"
          bind:value={() => email, (typed) => setEmail(at, typed ?? '')}
        />
        {#if at > 0}<TextButton
            aria-label="Remove email {at + 1}"
            class="min-h-9"
            onclick={() => (form.emails = form.emails.filter((_, i) => i !== at))}>Remove</TextButton
          >{:else if form.emails.length < MOST_EMAILS}<TextButton
            class="min-h-9 whitespace-nowrap"
            onclick={() => (form.emails = [...form.emails, ''])}>+ email</TextButton
          >{/if}
      </span>
    </Field>
  {/each}
  <Field label="Phone" id="guest-phone" mend={guest.mend('phone')}
    ><Input id="guest-phone" type="tel" autocomplete="off" bind:value={form.phone} /></Field
  >
  <Field label="Time zone" id="guest-own-zone" mend={guest.mend('zone')}
    ><ZoneSelect
      id="guest-own-zone"
      none="Not known"
      bind:value={() => form.zone ?? '', (zone) => (form.zone = zone === '' ? null : zone)}
    /></Field
  >
  <Field label="Language" id="guest-language" mend={guest.mend('language')}
    ><Select
      id="guest-language"
      placeholder=""
      bind:value={() => form.language ?? '', (language) => (form.language = language === '' ? null : language)}
      items={[{ value: '', name: 'Not known' }, ...languages]}
    /></Field
  >
  <Field label="Clock" id="guest-clock" mend={guest.mend('clock')}
    ><Select
      id="guest-clock"
      placeholder=""
      bind:value={() => form.clock ?? '', (clock) => (form.clock = clock === '' ? null : clock)}
      items={[
        { value: '', name: 'Not known' },
        { value: 'h24', name: '14:30' },
        { value: 'h12', name: '2:30 pm' },
      ]}
    /></Field
  >
  <Field
    label="Keeper"
    id="guest-keeper"
    hint="The person of your team whose guest they are."
    mend={guest.mend('keeperId')}
    ><Select
      id="guest-keeper"
      placeholder=""
      bind:value={() => form.keeperId ?? '', (id) => (form.keeperId = id === '' ? null : id)}
      items={[{ value: '', name: 'Nobody' }, ...people.map((person) => ({ value: person.id, name: person.name }))]}
    /></Field
  >
  {#each fields as field (field.id)}
    {@const value = form.fields[field.id] ?? ''}
    <Field label={field.name} id="guest-field-{field.id}" mend={guest.mend(`fields.${field.id}`)}>
      {#if field.kind === 'choice' || field.kind === 'yesNo'}
        <Select
          id="guest-field-{field.id}"
          placeholder=""
          bind:value={() => value, (chosen) => setField(field.id, chosen)}
          items={[
            { value: '', name: 'Not known' },
            ...(field.kind === 'yesNo'
              ? [
                  { value: 'yes', name: 'Yes' },
                  { value: 'no', name: 'No' },
                ]
              : field.options.map((option) => ({ value: option, name: option }))),
          ]}
        />
      {:else if field.kind === 'text'}
        <Textarea
          id="guest-field-{field.id}"
          rows={1}
          class="w-full"
          bind:value={() => value, (typed) => setField(field.id, typed ?? '')}
        />
      {:else}
        <Input
          id="guest-field-{field.id}"
          type={field.kind === 'date' ? 'date' : 'text'}
          inputmode={field.kind === 'number' ? 'decimal' : undefined}
          autocomplete="off"
          bind:value={() => value, (typed) => setField(field.id, typed ?? '')}
        />
      {/if}
    </Field>
  {/each}
</div>
