<script lang="ts">
  import Mend from '$lib/ui/Mend.svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api } from '$lib/api/client';
  import { faultOf, must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import Initials from '$lib/ui/Initials.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { person }: { person: { id: string; name: string; hasPortrait: boolean } } = $props();

  const setting = new Attempt();
  const mend = $derived(setting.problem && faultOf(setting.problem, 'file'));
  // A new picture has the old one's address; the number makes the browser ask again.
  let version = $state(0);

  async function set(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    const form = new FormData();
    form.append('file', file);
    await setting.run(async () => {
      await must(
        api.PUT('/api/me/portrait', { body: form as never, bodySerializer: (body: unknown) => body as FormData }),
      );
      version++;
      await askAnew();
    });
    input.value = '';
  }

  async function remove(): Promise<void> {
    await must(api.DELETE('/api/me/portrait'));
    await askAnew();
  }
</script>

<div class="flex flex-wrap items-center gap-4">
  {#if person.hasPortrait}
    <img
      src="/api/people/{person.id}/portrait?{version}"
      alt="Your portrait"
      class="h-16 w-16 rounded-full object-cover"
    />
  {:else}
    <Initials name={person.name} />
  {/if}
  <label class="cursor-pointer underline underline-offset-4 focus-within:outline-3">
    {person.hasPortrait ? 'Choose another portrait' : 'Choose a portrait'}<input
      type="file"
      accept="image/png,image/jpeg,image/webp"
      class="sr-only"
      aria-label="Portrait"
      onchange={(event) => void set(event.currentTarget)}
    />
  </label>
  {#if person.hasPortrait}<TextButton onclick={() => void remove()}>Remove</TextButton>{/if}
  {#if mend}<Mend words={mend} class="w-full" />{/if}
</div>
