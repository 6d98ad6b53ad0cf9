<script lang="ts">
  import TroubleScreen from '$lib/trouble/TroubleScreen.svelte';
</script>

<TroubleScreen isInside />
