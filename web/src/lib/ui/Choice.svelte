<script lang="ts">
  import type { HTMLLabelAttributes } from 'svelte/elements';

  let { class: more = '', children, ...rest }: HTMLLabelAttributes = $props();
</script>

<!-- A box or a circle with its words: all of it can be pressed. -->
<label {...rest} class="items-center gap-2 {more}">{@render children?.()}</label>
