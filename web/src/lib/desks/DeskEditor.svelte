<script lang="ts">
  import { Input, Select, Textarea } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import HostNameProof from './HostNameProof.svelte';
  import PictureField from './PictureField.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { NIGHT } from '$lib/ui/accent';

  interface Props {
    desk: Schemas['DeskView'];
    hosts: Schemas['HostView'][];
    mayEdit: boolean;
    onchanged: () => void;
  }

  let { desk, hosts, mayEdit, onchanged }: Props = $props();

  // What is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const form = $state({
    name: desk.name,
    intro: desk.intro,
    accent: desk.accent,
    hostName: desk.hostName,
    framers: desk.framers.join('\n'),
    hostId: desk.hostId ?? '',
  });
  const attempt = new Attempt();
  let told = $state('');
  const id = (field: string): string => `${field}-${desk.address}`;
  const framerMend = $derived(
    Object.entries(attempt.problem?.errors ?? {}).find(([field]) => field.startsWith('framers'))?.[1][0],
  );

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    const body = {
      ...form,
      framers: form.framers
        .split('\n')
        .map((line) => line.trim())
        .filter((line) => line !== ''),
      hostId: form.hostId === '' ? null : form.hostId,
    };
    if (!(await attempt.run(() => must(api.PUT('/api/desks/{id}', { params: { path: { id: desk.id } }, body })))))
      return;
    told =
      form.hostName !== '' && form.hostName.toLowerCase() !== desk.hostName
        ? 'Saved. The host name has to be proven; see below it.'
        : 'Saved. Guests see the change now.';
    onchanged();
  }

  const upload =
    (kind: string) =>
    (body: FormData): Promise<unknown> =>
      must(
        api.PUT('/api/desks/{id}/pictures/{kind}', {
          params: { path: { id: desk.id, kind } },
          body: body as never,
          bodySerializer: (form: unknown) => form as FormData,
        }),
      );
  const remove = (kind: string) => (): Promise<unknown> =>
    must(api.DELETE('/api/desks/{id}/pictures/{kind}', { params: { path: { id: desk.id, kind } } }));
</script>

<section aria-labelledby={id('desk')} class="rounded-2xl border border-line bg-card p-5">
  <div class="mb-3 flex flex-wrap items-baseline justify-between gap-3">
    <h2 id={id('desk')} class="text-lg">{desk.name}</h2>
    <a class="text-sm text-muted underline underline-offset-4" href="/{desk.address}" target="_blank" rel="noopener"
      >/{desk.address}</a
    >
  </div>
  <form novalidate onsubmit={(event) => void save(event)}>
    <fieldset disabled={!mayEdit} class="grid gap-4 md:grid-cols-2">
      <legend class="sr-only">{desk.name}</legend>
      {#if attempt.problem}<div class="md:col-span-2">
          <ProblemNote problem={attempt.problem} />
        </div>{/if}
      <Field label="Name, as guests read it" id={id('name')} mend={mendOf(attempt.problem, 'name')}
        ><Input id={id('name')} bind:value={form.name} /></Field
      >
      <Field label="Whose desk" id={id('host')} mend={mendOf(attempt.problem, 'hostId')}>
        <Select
          id={id('host')}
          placeholder=""
          bind:value={form.hostId}
          items={[
            { value: '', name: 'no person: it lists its own pages' },
            ...hosts.map((host) => ({ value: host.id, name: host.name })),
          ]}
        />
      </Field>
      <Field
        label="Intro"
        id={id('intro')}
        hint="Markdown"
        mend={mendOf(attempt.problem, 'intro')}
        class="md:col-span-2"><Textarea id={id('intro')} rows={3} class="w-full" bind:value={form.intro} /></Field
      >
      <div>
        <Field
          label="Host name of its own"
          id={id('hostname')}
          hint="Such as booking.example.com, once it leads to this server."
          mend={mendOf(attempt.problem, 'hostName')}><Input id={id('hostname')} bind:value={form.hostName} /></Field
        >
        {#if desk.hostNameProof && form.hostName.toLowerCase() === desk.hostName}
          <HostNameProof deskId={desk.id} proof={desk.hostNameProof} {onchanged} />
        {/if}
      </div>
      <Field label="Accent" id={id('accent')} mend={mendOf(attempt.problem, 'accent')}>
        <span class="flex items-center gap-3">
          <input
            id={id('accent')}
            type="color"
            class="h-9 w-14 rounded border border-line-strong bg-card"
            value={form.accent || NIGHT}
            onchange={(event) => (form.accent = event.currentTarget.value)}
          />
          {#if form.accent}<TextButton class="min-h-9" onclick={() => (form.accent = '')}>the default colour</TextButton
            >{/if}
        </span>
      </Field>
      <Field
        label="Sites that may show its pages in a frame, one a line"
        id={id('framers')}
        hint="Such as https://www.example.com"
        mend={framerMend}
        class="md:col-span-2"><Textarea id={id('framers')} rows={2} class="w-full" bind:value={form.framers} /></Field
      >
      <PictureField label="Logo" picture={desk.logo} set={upload('logo')} remove={remove('logo')} {onchanged} />
      <PictureField
        label="Picture"
        isWide
        picture={desk.banner}
        set={upload('banner')}
        remove={remove('banner')}
        {onchanged}
      />
      {#if mayEdit}<div class="flex items-center gap-3 md:col-span-2">
          <ActionButton type="submit" disabled={attempt.busy}>Save {desk.name}</ActionButton><span
            role="status"
            class="text-muted">{told}</span
          >
        </div>{/if}
    </fieldset>
  </form>
</section>
