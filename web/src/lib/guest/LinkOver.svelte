<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { cityOf, ownZone } from '$lib/time/clock';
  import { dateIn, longDate, timeOf } from '$lib/time/format';
  import { say } from '$lib/words/say.svelte';
  import { beside, inBrackets } from './beside';
  import { hostsInWords } from './inWords';
  import PageHead from './PageHead.svelte';
  import { placeWords } from './place';

  let { link }: { link: Schemas['GuestLink'] } = $props();

  const { page } = $derived(link);
  const own = $derived(page.guestZone || ownZone());
  const zone = $derived(page.isPlaceZoneOnly || page.placeKind === 'inPerson' ? page.zone : own);
  const otherZone = $derived(page.isPlaceZoneOnly ? zone : zone === own ? page.zone : own);
  const place = $derived(placeWords(page.placeKind, page.place, page.hostsRing));
</script>

<PageHead
  workspace={page.workspace}
  desk={page.desk}
  title={page.title}
  hosts={page.hosts}
  names={hostsInWords(page.seats)}
  accent={page.accent}
  logo={page.logo}
  picture={page.banner}
  deskPath={page.deskPath}
>
  {#if place}<span class="text-on-night">{place}</span>{/if}
</PageHead>

<main class="mx-auto max-w-[1216px] px-[18px] pb-16 md:px-6">
  <div class="mt-6 max-w-2xl rounded-2xl border border-line bg-card p-6">
    {#if link.taken.length > 0}
      <h2 class="text-xl">{say('link.booked')}</h2>
      <ul class="mt-2 space-y-2">
        {#each link.taken as taken (taken.start)}
          <li>
            <strong class="font-heading text-lg"
              >{longDate(dateIn(taken.start, zone))}, {timeOf(taken.start, zone)} – {timeOf(taken.end, zone)}</strong
            >
            <span class="block text-muted"
              >{say('zone.city-time', { city: cityOf(zone) })}{inBrackets(beside(taken.start, zone, otherZone))}, {say(
                'with-names',
                {
                  names: taken.hosts.join(', '),
                },
              )}{place ? `, ${place}` : ''}</span
            >
          </li>
        {/each}
      </ul>
      <p class="mt-3 text-muted">{say('link.change-by-mail')}</p>
    {:else if link.state === 'revoked'}
      <h2 class="text-xl">{say('link.revoked')}</h2>
      <p class="mt-1 text-muted">{say('link.ask-for-others', { name: link.ask })}</p>
    {:else}
      <h2 class="text-xl">{say('link.ended')}</h2>
      <p class="mt-1 text-muted">{say('link.ask-for-others', { name: link.ask })}</p>
    {/if}
  </div>
</main>
