<script lang="ts">
  import '../app.css';
  import { onMount, type Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();

  // What stood in the page before this came (lib/guest/first); named here, so that other screens load nothing of it.
  onMount(() => document.getElementById('first-view')?.remove());
</script>

{@render children()}
