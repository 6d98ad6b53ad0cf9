<script lang="ts">
  import '../guest.css';
  import TroubleScreen from '$lib/trouble/TroubleScreen.svelte';
</script>

<TroubleScreen />
