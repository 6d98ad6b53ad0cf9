<script lang="ts">
  import Initials from './Initials.svelte';

  let { person }: { person: { id: string; name: string; hasPortrait: boolean } } = $props();
</script>

{#if person.hasPortrait}
  <img
    src="/api/people/{person.id}/portrait"
    alt=""
    class="h-8 w-8 shrink-0 rounded-full border-2 border-on-dark object-cover"
  />
{:else}
  <Initials name={person.name} />
{/if}
