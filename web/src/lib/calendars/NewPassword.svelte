<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';

  let { calendar, onchanged }: { calendar: Schemas['CalendarView']; onchanged: () => void } = $props();

  let password = $state('');
  const attempt = new Attempt();

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (
      await attempt.run(() =>
        must(api.PUT('/api/calendars/{id}/password', { params: { path: { id: calendar.id } }, body: { password } })),
      )
    )
      onchanged();
  }
</script>

<form novalidate class="mt-2 flex flex-wrap items-end gap-3" onsubmit={(event) => void change(event)}>
  <Field
    label="New password at {calendar.source}"
    id="password-{calendar.id}"
    mend={attempt.problem?.errors?.password?.[0] ?? attempt.problem?.title}
  >
    <span class="block w-72"
      ><Input id="password-{calendar.id}" type="password" autocomplete="off" bind:value={password} /></span
    >
  </Field>
  <ActionButton type="submit" disabled={attempt.busy}>{attempt.busy ? 'Trying…' : 'Use it'}</ActionButton>
</form>
