<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import { readWeek } from './typed';
  import { dayInWords, weekdays, type Week } from './week';

  let { ontake, onclose }: { ontake: (week: Partial<Week>) => void; onclose: () => void } = $props();

  let text = $state('');
  const read = $derived(readWeek(text));
  const days = $derived(weekdays.filter((day) => read.week[day.key] !== undefined));
  const isReadable = $derived(read.faults.length === 0 && days.length > 0);
</script>

<div class="mt-2 rounded-lg border border-line bg-paper p-3">
  <label for="pasted-hours" class="mb-1 block">A line for a day or several, such as <em>Mon–Thu 8–12, 13–17</em></label>
  <Textarea id="pasted-hours" rows={4} bind:value={text} class="w-full" aria-describedby="pasted-read" />
  <div id="pasted-read" aria-live="polite" class="mt-1.5 text-sm">
    {#each read.faults as fault, i (i)}<p class="text-brick">“{fault.text}” can’t be read. {fault.mend}</p>{/each}
    {#if days.length > 0}
      <p class="text-muted">
        {days.map((day) => `${day.short} ${dayInWords(read.week[day.key] ?? [])}`).join('; ')}{read.faults.length > 0
          ? '. Nothing is used until the rest is fixed.'
          : ''}
      </p>
    {/if}
  </div>
  <div class="mt-2 flex gap-2">
    <ActionButton disabled={!isReadable} onclick={() => ontake(read.week)}>Use these hours</ActionButton>
    <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
  </div>
</div>
