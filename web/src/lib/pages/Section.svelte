<script lang="ts">
  import type { Snippet } from 'svelte';

  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<section
  aria-label={title}
  class="grid gap-x-3 gap-y-2 border-t border-line py-4 first-of-type:border-t-0 md:grid-cols-[112px_1fr]"
>
  <h2 class="pt-1.5 text-part">{title}</h2>
  <div class="min-w-0 space-y-3">{@render children()}</div>
</section>
