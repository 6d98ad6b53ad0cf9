<script lang="ts">
  import { say, sayCount } from '$lib/words/say.svelte';
  import type { GuestPageState } from './GuestPageState.svelte';

  let { guest }: { guest: GuestPageState } = $props();

  let over = $state(false);

  function take(files: FileList | null | undefined): void {
    const file = files?.[0];
    if (file) void guest.takeCalendar(file);
  }

  function drop(event: DragEvent): void {
    event.preventDefault();
    over = false;
    take(event.dataTransfer?.files);
  }
</script>

<div
  role="group"
  aria-label={say('Your own calendar')}
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
      {sayCount(
        guest.calendarNote.count,
        '{n} entry of your calendar is taken into account; times that clash are marked.',
        '{n} entries of your calendar are taken into account; times that clash are marked.',
      )}
      <button type="button" class="min-h-11 underline underline-offset-4" onclick={() => guest.forgetCalendar()}
        >{say('Forget it')}</button
      >
    </p>
  {:else}
    <p>
      {say('See your own calendar beside these times: drop its file here, or')}
      <label
        class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4 focus-within:outline-3"
      >
        {say('choose an .ics file')}
        <input
          type="file"
          accept=".ics,text/calendar"
          class="sr-only"
          onchange={(event) => take(event.currentTarget.files)}
        />
      </label>
    </p>
    <p class="text-sm text-muted">{say('It is read in this browser and sent nowhere.')}</p>
    {#if guest.calendarNote}<p class="text-brick" role="alert">
        {say('This is no calendar file that can be read. Export it as .ics and choose it again.')}
      </p>{/if}
  {/if}
</div>
