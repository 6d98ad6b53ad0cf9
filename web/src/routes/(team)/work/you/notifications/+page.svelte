<script lang="ts">
  import { Checkbox, Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const whens: { value: Schemas['Notify']; text: string }[] = [
    { value: 'atOnce', text: 'At once' },
    { value: 'daily', text: 'Once a day' },
    { value: 'never', text: 'Never' },
  ];

  // What is chosen stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  const form = $state({ ...data.notifications });
  const attempt = new Attempt();
  let told = $state('');

  const short = (time: string | null): string => time?.slice(0, 5) ?? '';
  const long = (typed: string): string | null => (typed === '' ? null : `${typed}:00`);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    told = '';
    if (await attempt.run(() => must(api.PUT('/api/me/notifications', { body: form }))))
      told = 'Saved. It applies to mail from now on.';
  }
</script>

<svelte:head><title>Notifications – Loose Lantern</title></svelte:head>

<form novalidate class="space-y-5 rounded-2xl border border-line bg-card p-5" onsubmit={(event) => void save(event)}>
  {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
  <p>Mail about bookings: when they are made, moved or cancelled, and when a guest answers.</p>
  {#if data.me.hostId}
    <div>
      <p class="mb-1">Your bookings</p>
      <Segments label="Your bookings" options={whens} value={form.own} onchoose={(when) => (form.own = when)} />
    </div>
    <Checkbox bind:checked={form.reminded}>Remind me of them, as the page reminds its guests</Checkbox>
  {/if}
  <div>
    <p class="mb-1">Bookings of hosts you act for</p>
    <Segments
      label="Bookings of hosts you act for"
      options={whens}
      value={form.actedFor}
      onchoose={(when) => (form.actedFor = when)}
    />
  </div>
  <div>
    <p class="mb-1">Bookings by pages and links that you made or sent</p>
    <Segments
      label="Bookings by pages and links that you made or sent"
      options={whens}
      value={form.made ?? 'atOnce'}
      onchoose={(when) => (form.made = when)}
    />
  </div>
  {#if data.me.isCoordinator || data.me.isOwner}
    <div>
      <p class="mb-1">All other bookings of {data.me.workspace}</p>
      <Segments
        label="All other bookings of {data.me.workspace}"
        options={whens}
        value={form.others}
        onchoose={(when) => (form.others = when)}
      />
    </div>
  {/if}
  <div class="flex flex-wrap gap-6">
    <Field label="Daily mail at" id="daily-at" mend={mendOf(attempt.problem, 'dailyAt')}>
      <Input
        id="daily-at"
        type="time"
        class="w-36"
        bind:value={() => short(form.dailyAt), (typed) => (form.dailyAt = long(typed ?? '') ?? form.dailyAt)}
      />
    </Field>
    <Field label="Quiet from" id="quiet-from" mend={mendOf(attempt.problem, 'quietFrom')}>
      <Input
        id="quiet-from"
        type="time"
        class="w-36"
        bind:value={() => short(form.quietFrom), (typed) => (form.quietFrom = long(typed ?? ''))}
      />
    </Field>
    <Field label="until" id="quiet-until" mend={mendOf(attempt.problem, 'quietUntil')}>
      <Input
        id="quiet-until"
        type="time"
        class="w-36"
        bind:value={() => short(form.quietUntil), (typed) => (form.quietUntil = long(typed ?? ''))}
      />
    </Field>
  </div>
  <p class="text-sm text-muted">
    In quiet hours nothing comes that can wait. What begins less than an hour after them, and what needs your yes, comes
    all the same. Both fields may stay empty.
  </p>
  <div class="flex items-center gap-3">
    <ActionButton kind="main" type="submit" disabled={attempt.busy}>Save</ActionButton><span
      role="status"
      class="text-muted">{told}</span
    >
  </div>
</form>
