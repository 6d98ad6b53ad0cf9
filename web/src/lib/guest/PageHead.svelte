<script lang="ts">
  import type { Snippet } from 'svelte';
  import Initials from '$lib/ui/Initials.svelte';

  const MOST_PORTRAITS = 6;

  interface Props {
    workspace: string;
    desk: string;
    title: string;
    /** Everybody who may be met, for their portraits. */
    hosts: readonly string[];
    /** Who is met, in words. */
    names: string;
    /** Controls beside the hosts. */
    children?: Snippet;
  }

  let { workspace, desk, title, hosts, names, children }: Props = $props();
</script>

<header class="on-night relative overflow-hidden bg-night text-[#fffdf8]">
  <div aria-hidden="true" class="absolute inset-0 bg-[radial-gradient(circle_at_85%_45%,rgba(242,181,65,0.42),transparent_28%)]"></div>
  <div class="relative mx-auto max-w-[1216px] px-[18px] pt-4 pb-5 md:px-6 md:pt-5 md:pb-8">
    <p class="flex items-center gap-2.5 text-sm text-on-night">
      <span aria-hidden="true" class="inline-flex h-[26px] w-[26px] items-center justify-center rounded-lg bg-glow font-bold text-[#18223b]">{workspace.charAt(0)}</span>
      {workspace} <span aria-hidden="true">/</span>
      {desk}
    </p>
    <h1 class="mt-3 text-2xl md:text-[32px]">{title}</h1>
    <div class="mt-2.5 flex flex-wrap items-center gap-x-5 gap-y-2.5">
      <p class="flex items-center gap-3">
        <span class="hidden -space-x-2 md:inline-flex">
          {#each [...new Set(hosts)].slice(0, MOST_PORTRAITS) as host (host)}<Initials name={host} />{/each}
        </span>
        <span>with <strong>{names}</strong></span>
      </p>
      {@render children?.()}
    </div>
  </div>
</header>
