<script lang="ts">
  let { name }: { name: string } = $props();

  const tones = ['#2b7a75', '#77508c', '#a5642a', '#3d5a99', '#8a4a5e'];
  const initials = $derived(
    name
      .split(/\s+/)
      .map((word) => word.charAt(0))
      .slice(0, 2)
      .join(''),
  );
  const tone = $derived(tones[[...name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % tones.length]);
</script>

<span
  aria-hidden="true"
  class="inline-flex h-8 w-8 shrink-0 items-center justify-center rounded-full border-2 border-[#fffdf8] text-xs font-bold text-white"
  style:background={tone}
  style:color="#fffdf8">{initials}</span
>
