<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { onMount, type Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();

  const isTeams = (route: string | null | undefined): boolean => route?.startsWith('/(team)') === true;

  // Guests' screens and the team's have a style sheet each. Both at once would each overrule the other, so that whoever
  // goes from one to the other starts anew.
  beforeNavigate(({ from, to, willUnload, cancel }) => {
    if (willUnload || !to || isTeams(from?.route.id) === isTeams(to.route.id)) return;
    cancel();
    location.href = to.url.href;
  });

  // What stood in the page before this came (lib/guest/first); named here, so that other screens load nothing of it.
  onMount(() => document.getElementById('first-view')?.remove());
</script>

{@render children()}
