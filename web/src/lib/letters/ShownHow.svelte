<script lang="ts">
  import Segments from '$lib/ui/Segments.svelte';

  let { how = $bindable() }: { how: 'text' | 'html' } = $props();
</script>

<Segments
  label="How it is shown"
  options={[
    { value: 'text', text: 'As text' },
    { value: 'html', text: 'Formatted' },
  ]}
  value={how}
  onchoose={(chosen) => (how = chosen)}
/>
