<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    /** `main` is the one glowing action of a screen. */
    kind?: 'main' | 'plain' | 'quiet';
    id?: string;
    type?: 'button' | 'submit';
    href?: string;
    disabled?: boolean;
    class?: string;
    onclick?: (event: MouseEvent) => void;
    children: Snippet;
  }

  let {
    kind = 'plain',
    id,
    type = 'button',
    href,
    disabled = false,
    class: more = '',
    onclick,
    children,
  }: Props = $props();

  const looks = {
    main: 'bg-glow text-on-glow hover:bg-glow-bar border border-transparent font-bold',
    plain: 'bg-card text-ink hover:bg-lane border border-line-strong font-semibold',
    quiet: 'bg-transparent text-ink hover:bg-lane border border-transparent underline underline-offset-4 font-normal',
  };
  const look = $derived(
    `rounded-lg px-4 py-2 text-(length:--text-body) focus:ring-0 focus-visible:outline-3 ${looks[kind]} ${more}`,
  );
</script>

<!-- The main one answers to a key, too. -->
{#if href}
  <Button {href} class={look} data-main={kind === 'main' ? '' : undefined}>{@render children()}</Button>
{:else}
  <Button {id} {type} {disabled} {onclick} class={look} data-main={kind === 'main' ? '' : undefined}
    >{@render children()}</Button
  >
{/if}
