<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must, problemOf, type Problem } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Field from '$lib/ui/Field.svelte';

  let { calendar, onchanged }: { calendar: Schemas['CalendarView']; onchanged: () => void } = $props();

  let password = $state('');
  let problem = $state.raw<Problem | undefined>(undefined);
  let busy = $state(false);

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      await must(api.PUT('/api/calendars/{id}/password', { params: { path: { id: calendar.id } }, body: { password } }));
      onchanged();
    } catch (thrown) {
      problem = problemOf(thrown);
    } finally {
      busy = false;
    }
  }
</script>

<form novalidate class="mt-2 flex flex-wrap items-end gap-3" onsubmit={(event) => void change(event)}>
  <Field label="New password at {calendar.source}" id="password-{calendar.id}" mend={problem?.errors?.password?.[0] ?? problem?.title}>
    <span class="block w-72"><Input id="password-{calendar.id}" type="password" autocomplete="off" bind:value={password} /></span>
  </Field>
  <ActionButton type="submit" disabled={busy}>{busy ? 'Trying…' : 'Use it'}</ActionButton>
</form>
