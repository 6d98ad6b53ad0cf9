<script lang="ts">
  import type { Snippet } from 'svelte';

  import { idOf } from './sections';

  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<section
  id={idOf(title)}
  aria-label={title}
  class="grid scroll-mt-24 gap-x-3 gap-y-2 border-t border-line py-4 first-of-type:border-t-0 max-lg:md:grid-cols-[112px_1fr]"
>
  <h2 class="text-part">{title}</h2>
  <div class="min-w-0 space-y-3">{@render children()}</div>
</section>
