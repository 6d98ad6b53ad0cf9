<script lang="ts">
  import { Temporal } from 'temporal-polyfill';
  import { cityOf, sameClock } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';

  interface Props {
    zone: string;
    users: { name: string; zone: string }[];
    now: string;
  }

  let { zone, users, now }: Props = $props();

  const others = $derived(users.filter((user) => !sameClock(user.zone, zone, Temporal.Instant.from(now))));
</script>

<p class="text-sm text-muted">It is {timeOf(now, zone)} in {cityOf(zone)} now.</p>
{#each others as user (user.name)}
  <p
    class="rounded-lg border-l-4 border-brick bg-brick-tint px-3 py-1.5 text-sm text-brick-text"
    data-test="zone-warning"
  >
    {user.name} is in {cityOf(user.zone)}, where it is {timeOf(now, user.zone)}. These hours are read by the clock of {cityOf(
      zone,
    )}: 09:00 here is not their 09:00.
  </p>
{/each}
