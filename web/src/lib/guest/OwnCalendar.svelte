<script lang="ts">
  import { say, sayCount } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';
  import { takeCalendar } from './takeCalendar';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { guest }: { guest: GuestPageState } = $props();

  let over = $state(false);

  function take(files: FileList | null | undefined): void {
    const file = files?.[0];
    if (file) void takeCalendar(guest, file);
  }

  function drop(event: DragEvent): void {
    event.preventDefault();
    over = false;
    take(event.dataTransfer?.files);
  }
</script>

<div
  role="group"
  aria-label={say('calendar.title')}
  class="mt-6 rounded-2xl border border-dashed p-4 {over ? 'border-ink bg-card' : 'border-line-strong'}"
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  {#if guest.calendarNote?.isRead}
    <p role="status">
      {sayCount(guest.calendarNote.count, 'calendar.entries')}
      <TextButton class="min-h-11" onclick={() => guest.forgetCalendar()}>{say('calendar.forget')}</TextButton>
    </p>
  {:else}
    <p>
      {say('calendar.drop')}
      <label
        class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4 focus-within:outline-3"
      >
        {say('calendar.choose')}
        <input
          type="file"
          accept=".ics,text/calendar"
          class="sr-only"
          onchange={(event) => take(event.currentTarget.files)}
        />
      </label>
    </p>
    <p class="text-sm text-muted">{say('calendar.stays-here')}</p>
    {#if guest.calendarNote}<p class="text-brick" role="alert">
        {say('calendar.unreadable')}
      </p>{/if}
  {/if}
</div>
