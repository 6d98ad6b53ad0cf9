<script lang="ts">
  import { firstCharacter } from '$lib/words/cutText';

  let { name }: { name: string } = $props();

  const TONES = 5;
  const initials = $derived(name.split(/\s+/).map(firstCharacter).slice(0, 2).join(''));
  const tone = $derived([...name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % TONES);
</script>

<span
  aria-hidden="true"
  class="inline-flex h-8 w-8 shrink-0 items-center justify-center rounded-full border-2 border-on-dark text-xs font-bold text-on-dark"
  style:background="var(--initials-{tone})">{initials}</span
>
