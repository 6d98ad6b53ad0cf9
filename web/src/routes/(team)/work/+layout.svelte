<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import { api, forgetToken } from '$lib/api/client';
  import { askAnew } from '$lib/live/anew';
  import { watchChanges } from '$lib/live/changes';
  import Find from '$lib/find/Find.svelte';
  import Keys from '$lib/keys/Keys.svelte';
  import MailWaits from '$lib/post/MailWaits.svelte';
  import TakeBack from '$lib/undo/TakeBack.svelte';
  import Portrait from '$lib/ui/Portrait.svelte';
  import type { LayoutProps } from './$types';
  import TextButton from '$lib/ui/TextButton.svelte';

  let { data, children }: LayoutProps = $props();

  let find = $state<Find | undefined>(undefined);

  const REFRESH_EVERY = 30_000;
  const places = [
    { href: '/work/pages', name: 'Pages' },
    { href: '/work/links', name: 'Links' },
    { href: '/work/bookings', name: 'Bookings' },
    { href: '/work/guests', name: 'Guests' },
    { href: '/work/board', name: 'Board' },
    { href: '/work/hours', name: 'Hours' },
    { href: '/work/calendars', name: 'Calendars' },
    { href: '/work/post', name: 'Post' },
    { href: '/work/team', name: 'Team' },
  ];

  // A colleague's change shows when somebody comes back to a screen, and soon on one that stays open.
  onMount(() => {
    const refresh = (): void => {
      if (document.visibilityState === 'visible') void askAnew();
    };
    const timer = setInterval(refresh, REFRESH_EVERY);
    const unwatch = watchChanges('/api/changes', refresh);
    return () => {
      clearInterval(timer);
      unwatch();
    };
  });

  async function signOut(): Promise<void> {
    await api.POST('/api/sign-out');
    forgetToken();
    await goto('/sign-in', { invalidateAll: true });
  }
</script>

<div class="min-h-screen md:grid md:grid-cols-[148px_1fr] print:block">
  <header
    class="print:hidden on-night relative z-30 bg-night text-on-night md:sticky md:top-0 md:flex md:h-screen md:flex-col"
  >
    <div class="flex flex-wrap items-center gap-x-4 px-3 py-2 md:block md:px-0 md:py-0">
      <p class="font-heading px-2 text-base leading-tight font-bold text-on-dark md:px-5 md:pt-4">
        Loose <br class="max-md:hidden" /><span class="text-glow-pale">Lantern</span>
      </p>
      <div class="max-md:order-3 max-md:w-full md:mx-3 md:mt-3">
        <Find bind:this={find} me={data.me} hasKey={data.me.usesKeys} />
      </div>
      <nav
        aria-label="Main"
        class="flex flex-wrap max-md:order-last max-md:w-full md:mt-3 md:block md:space-y-0.5 md:px-3"
      >
        {#if data.me.firstRun}
          {@const here = page.url.pathname.startsWith('/work/first')}
          <a
            href="/work/first"
            aria-current={here ? 'page' : undefined}
            class="block rounded-lg border border-glow-pale px-2.5 py-2 md:mb-1 {here
              ? 'bg-night-raised font-bold text-on-dark'
              : 'hover:bg-night-raised'}">First steps</a
          >
        {/if}
        {#each places.filter((place) => data.me.isCoordinator || place.href !== '/work/links') as place (place.href)}
          {@const here = page.url.pathname.startsWith(place.href)}
          <a
            href={place.href}
            aria-current={here ? 'page' : undefined}
            class="block rounded-lg px-2.5 py-2 {here
              ? 'bg-night-raised font-bold text-on-dark'
              : 'hover:bg-night-raised'}">{place.name}</a
          >
        {/each}
      </nav>
      <a href="/work/you" class="ml-auto px-2 py-2 text-sm underline underline-offset-4 md:hidden">You</a>
      <TextButton class="px-2 py-2 text-sm md:hidden" onclick={() => void signOut()}>Sign out</TextButton>
    </div>
    <div class="mx-3 mt-auto border-t border-night-edge px-2 py-3 text-sm max-md:hidden">
      <p>{data.me.workspace}</p>
      <a
        href="/work/you"
        aria-current={page.url.pathname.startsWith('/work/you') ? 'page' : undefined}
        class="flex items-center gap-2 py-1 font-bold text-on-dark underline-offset-4 hover:underline"
      >
        <Portrait person={{ id: data.me.id, name: data.me.name, hasPortrait: data.me.hasPortrait }} />{data.me.name}
      </a>
      <TextButton class="mt-1" onclick={() => void signOut()}>Sign out</TextButton>
    </div>
  </header>
  <main class="min-w-0 px-4 pt-3.5 pb-16 md:px-[26px]">
    {#if data.me.mailWaits}<div class="print:hidden"><MailWaits me={data.me} /></div>{/if}
    <TakeBack now={data.me.now} />
    {@render children()}
  </main>
</div>

{#if data.me.usesKeys}<Keys onfind={() => find?.begin()} />{/if}
