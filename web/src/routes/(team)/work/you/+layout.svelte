<script lang="ts">
  import { page } from '$app/state';
  import type { LayoutProps } from './$types';

  let { data, children }: LayoutProps = $props();

  const parts = $derived([
    { href: '/work/you', name: 'Profile' },
    ...(data.me.hostId ? [{ href: '/work/you/acting', name: 'Acting for me' }] : []),
    { href: '/work/you/notifications', name: 'Notifications' },
    { href: '/work/you/usual', name: 'Defaults' },
    { href: '/work/you/security', name: 'Signing in' },
  ]);
</script>

<header class="mb-4">
  <h1 class="text-page">{data.me.name}</h1>
  <nav aria-label="About you" class="mt-2 flex flex-wrap gap-x-5 border-b border-line">
    {#each parts as part (part.href)}
      {@const here = page.url.pathname === part.href}
      <a
        href={part.href}
        aria-current={here ? 'page' : undefined}
        class="border-b-2 py-2 {here ? 'border-ink font-bold' : 'border-transparent hover:border-line-strong'}"
        >{part.name}</a
      >
    {/each}
  </nav>
</header>
<div class="max-w-3xl">{@render children()}</div>
