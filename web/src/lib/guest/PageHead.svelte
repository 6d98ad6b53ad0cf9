<script lang="ts">
  import type { Snippet } from 'svelte';
  import Initials from '$lib/ui/Initials.svelte';
  import { say } from '$lib/words/say.svelte';

  const MOST_PORTRAITS = 6;

  interface Props {
    workspace: string;
    desk: string;
    title: string;
    /** Everybody who may be met, for their portraits; nobody where the page doesn't tell. */
    hosts: readonly { name: string; portrait?: string | null }[];
    /** Who is met, in words. */
    names: string;
    /** #rrggbb, dark enough for white words; empty for the default colour. */
    accent?: string;
    /** A picture behind the title. */
    picture?: string | null;
    logo?: string | null;
    /** Where the desk is. */
    deskPath?: string | undefined;
    /** Controls beside the hosts. */
    children?: Snippet;
  }

  let {
    workspace,
    desk,
    title,
    hosts,
    names,
    accent = '',
    picture = null,
    logo = null,
    deskPath,
    children,
  }: Props = $props();
</script>

<header class="on-night relative overflow-hidden bg-night text-on-dark" style:background-color={accent || undefined}>
  {#if picture}
    <img src={picture} alt="" class="absolute inset-y-0 right-0 h-full w-full object-cover md:w-[60%]" />
    <div
      aria-hidden="true"
      class="absolute inset-0"
      style="background: linear-gradient(90deg, {accent || 'var(--night)'} 45%, color-mix(in srgb, {accent ||
        'var(--night)'} 62%, transparent))"
    ></div>
  {:else}
    <div
      aria-hidden="true"
      class="absolute inset-0 bg-[radial-gradient(circle_at_85%_45%,color-mix(in_srgb,var(--glow-light)_42%,transparent),transparent_28%)]"
    ></div>
  {/if}
  <div class="relative mx-auto max-w-[1216px] px-[18px] pt-4 pb-5 md:px-6 md:pt-5 md:pb-8">
    <p class="flex items-center gap-2.5 text-sm text-on-night">
      {#if logo}
        <img src={logo} alt="" class="h-[26px] w-[26px] rounded-lg object-cover" />
      {:else}
        <span
          aria-hidden="true"
          class="inline-flex h-[26px] w-[26px] items-center justify-center rounded-lg bg-glow font-bold text-on-glow"
          >{workspace.charAt(0)}</span
        >
      {/if}
      {workspace} <span aria-hidden="true">/</span>
      {#if deskPath}<a
          class="inline-flex min-h-6 items-center underline underline-offset-4 max-md:min-h-11"
          href={deskPath}>{desk}</a
        >{:else}{desk}{/if}
    </p>
    <h1 class="mt-3 text-2xl md:text-hero">{title}</h1>
    <div class="mt-2.5 flex flex-wrap items-center gap-x-5 gap-y-2.5">
      {#if names}
        <p class="flex items-center gap-3">
          <span class="hidden -space-x-2 md:inline-flex">
            {#each hosts.slice(0, MOST_PORTRAITS) as host, i (i)}
              {#if host.portrait}<img
                  src={host.portrait}
                  alt=""
                  class="h-8 w-8 rounded-full border-2 border-on-dark object-cover"
                />{:else}<Initials name={host.name} />{/if}
            {/each}
          </span>
          <span>{say('with')} <strong>{names}</strong></span>
        </p>
      {/if}
      {@render children?.()}
    </div>
  </div>
</header>
