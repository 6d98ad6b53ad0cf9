<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { mendOf, must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import AccountCalendars from './AccountCalendars.svelte';
  import { ownersOf, TEAM, type Whose } from './owners';
  import WhoseCalendar from './WhoseCalendar.svelte';

  interface Props {
    hosts: Schemas['HostView'][];
    whose: Whose;
    mayShare: boolean;
    onjoined: () => void;
    onclose: () => void;
    leave: string;
  }

  let { hosts, whose = $bindable(), mayShare, onjoined, onclose, leave }: Props = $props();

  const account = $state({ server: '', userName: '', password: '' });
  let found = $state.raw<Schemas['AccountFound'] | undefined>(undefined);
  let chosen = $state<string[]>([]);
  let writeTo = $state<string | null>(null);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const isTeams = $derived(whose.hostId === TEAM);
  // What stands in the way of joining names the account's fields beneath it.
  const mend = (field: string): string | undefined => mendOf(problem, field) ?? mendOf(problem, `account.${field}`);
  const mendOfChoice = $derived(
    Object.entries(problem?.errors ?? {}).find(
      ([field]) => field.startsWith('calendars') || field === 'writeTo',
    )?.[1][0],
  );

  async function find(): Promise<void> {
    found = await must(
      api.POST('/api/calendars/account/find', {
        params: { query: isTeams ? {} : { hostId: whose.hostId } },
        body: account,
      }),
    );
    const open = found.calendars.filter((calendar) => !calendar.isJoined);
    chosen = open.map((calendar) => calendar.path);
    writeTo = isTeams ? null : (open.find((calendar) => calendar.mayWrite)?.path ?? null);
  }

  async function join(): Promise<void> {
    const to = !isTeams && writeTo !== null && chosen.includes(writeTo) ? writeTo : null;
    await must(
      api.POST('/api/calendars/account', { body: { for: ownersOf(whose), account, calendars: chosen, writeTo: to } }),
    );
    onjoined();
  }

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    void attempt.run(found ? join : find);
  }
</script>

<form novalidate aria-label="Join calendars of an account" class="grid gap-4 md:grid-cols-4" onsubmit={submit}>
  {#if problem}<div class="md:col-span-4"><ProblemNote {problem} /></div>{/if}
  <WhoseCalendar
    {hosts}
    bind:whose={() => whose, (next) => ((whose = next), (found = undefined))}
    {mayShare}
    mend={mend('for.hostId') ?? mend('for.hostIds')}
  />
  <Field
    label="Calendar server"
    id="join-server"
    hint="Its address or name, or your mail address there (CalDAV)"
    mend={mend('server')}
  >
    <Input
      id="join-server"
      inputmode="url"
      autocomplete="off"
      bind:value={() => account.server, (next) => ((account.server = next ?? ''), (found = undefined))}
    />
  </Field>
  <Field label="Name there" id="join-user" mend={mend('userName')}>
    <Input
      id="join-user"
      autocomplete="off"
      bind:value={() => account.userName, (next) => ((account.userName = next ?? ''), (found = undefined))}
    />
  </Field>
  <Field label="Password there" id="join-password" hint="Kept encrypted, never shown again" mend={mend('password')}>
    <Input
      id="join-password"
      type="password"
      autocomplete="off"
      bind:value={() => account.password, (next) => ((account.password = next ?? ''), (found = undefined))}
    />
  </Field>
  {#if found}
    <div class="md:col-span-4">
      <AccountCalendars {found} bind:chosen bind:writeTo mayWrite={!isTeams} mend={mendOfChoice} />
    </div>
  {/if}
  <p class="text-sm text-muted md:col-span-2">
    If your server makes passwords for single programs, use one of those here.
  </p>
  <div class="flex justify-end gap-3 md:col-span-2">
    <ActionButton onclick={onclose}>{leave}</ActionButton>
    {#if found}
      <ActionButton kind="main" type="submit" disabled={attempt.busy || chosen.length === 0}
        >{attempt.busy ? 'Reading…' : chosen.length === 1 ? 'Join it' : `Join ${chosen.length}`}</ActionButton
      >
    {:else}
      <ActionButton kind="main" type="submit" disabled={attempt.busy}
        >{attempt.busy ? 'Looking…' : 'Find calendars'}</ActionButton
      >
    {/if}
  </div>
</form>
