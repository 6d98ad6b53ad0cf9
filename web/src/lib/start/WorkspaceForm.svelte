<script lang="ts">
  import { goto } from '$app/navigation';
  import { Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, forgetToken } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import { addressFrom } from '$lib/pages/address';
  import { ownZone, ServerClock } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    /** Of a mailed link, with the address it was mailed to; undefined where none is needed. */
    link?: { secret: string; email: string };
  }

  let { link }: Props = $props();

  const form = $state({
    workspace: '',
    zone: ownZone(),
    name: '',
    email: '',
    password: '',
    deskName: '',
    deskAddress: '',
  });
  let addressTyped = $state(false);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);

  const suggested = $derived(addressFrom(form.workspace));
  const address = $derived(addressTyped ? form.deskAddress : suggested);
  let checked = $state.raw<{ address: string; mend: string | null; offers: string[] } | undefined>(undefined);
  let now = $state<number | undefined>(undefined);

  onMount(() => {
    let clock: ServerClock | undefined;
    const show = (): void => void (now = clock?.now());
    void api.GET('/api/token').then((answer) => {
      if (answer.data) clock = new ServerClock(answer.data.now);
      show();
    });
    const tick = setInterval(show, 10_000);
    return () => clearInterval(tick);
  });

  // Checked as it is typed; a moment's pause keeps half-typed ones from asking.
  $effect(() => {
    const asked = address;
    if (asked === '') return;
    const pause = setTimeout(() => void check(asked), 250);
    return () => clearTimeout(pause);
  });

  async function check(asked: string): Promise<void> {
    const answer = await api.GET('/api/sign-up/desk-address', { params: { query: { address: asked } } });
    if (answer.data && asked === address)
      checked = { address: asked, mend: answer.data.mend, offers: answer.data.offers };
  }

  function typeAddress(typed: string): void {
    addressTyped = true;
    form.deskAddress = typed;
  }

  async function start(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    forgetToken();
    await attempt.run(async () => {
      const body = {
        ...form,
        email: link ? '' : form.email.trim(),
        deskName: form.deskName.trim() || form.workspace,
        deskAddress: address,
        link: link?.secret ?? null,
      };
      await must(api.POST('/api/sign-up', { body }));
      forgetToken();
      await goto('/work/first', { invalidateAll: true });
    });
  }
</script>

<form class="space-y-4" novalidate onsubmit={(event) => void start(event)}>
  {#if problem}<ProblemNote {problem} />{/if}
  <Field label="Your organisation" id="workspace" mend={mendOf(problem, 'workspace')}>
    <Input id="workspace" autocomplete="organization" bind:value={form.workspace} />
  </Field>
  <Field
    label="Time zone"
    id="zone"
    hint={now ? `It is ${timeOf(now, form.zone)} there now` : ''}
    mend={mendOf(problem, 'zone')}
  >
    <ZoneSelect id="zone" bind:value={form.zone} />
  </Field>
  <div class="grid gap-4 md:grid-cols-2">
    <Field
      label="First desk, as guests read it"
      id="desk-name"
      hint="The organisation’s name, unless you enter another"
      mend={mendOf(problem, 'deskName')}
    >
      <Input id="desk-name" bind:value={form.deskName} placeholder={form.workspace} />
    </Field>
    <div>
      <Field
        label="Its address"
        id="desk-address"
        hint={checked && checked.address === address && !checked.mend
          ? `${address} is free`
          : 'First part of each page’s address'}
        mend={mendOf(problem, 'deskAddress') ??
          (checked?.address === address ? (checked.mend ?? undefined) : undefined)}
      >
        <Input id="desk-address" bind:value={() => address, typeAddress} />
      </Field>
      {#if checked && checked.address === address && checked.offers.length > 0}
        <p class="mt-1 text-sm text-muted">
          Free: {#each checked.offers as offer (offer)}<TextButton
              class="mr-2 min-h-8 text-ink"
              onclick={() => typeAddress(offer)}>{offer}</TextButton
            >{/each}
        </p>
      {/if}
    </div>
  </div>
  <Field label="Your name" id="name" mend={mendOf(problem, 'name')}
    ><Input id="name" autocomplete="name" bind:value={form.name} /></Field
  >
  {#if link}
    <p>You will sign in with <strong class="wrap-anywhere">{link.email}</strong>.</p>
  {:else}
    <Field label="Your email" id="email" mend={mendOf(problem, 'email')}>
      <Input id="email" type="email" autocomplete="username" bind:value={form.email} />
    </Field>
  {/if}
  <Field
    label="Password"
    id="password"
    hint="10 characters or more that nobody would guess"
    mend={mendOf(problem, 'password')}
  >
    <Input id="password" type="password" autocomplete="new-password" bind:value={form.password} />
  </Field>
  <ActionButton kind="main" type="submit" disabled={attempt.busy} class="w-full"
    >{attempt.busy ? 'Making it…' : 'Make the workspace'}</ActionButton
  >
</form>
