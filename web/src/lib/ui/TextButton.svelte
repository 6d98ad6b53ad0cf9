<script lang="ts">
  import type { HTMLButtonAttributes } from 'svelte/elements';

  let { class: more = '', type = 'button', children, ...rest }: HTMLButtonAttributes = $props();
</script>

<!-- A press that reads as words in their line: what leads on, opens or takes away, beside the one that counts. -->
<button {type} {...rest} class="underline underline-offset-4 {more}">{@render children?.()}</button>
