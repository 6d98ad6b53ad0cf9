<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { cityOf, ownZone } from '$lib/time/clock';
  import { timeOf } from '$lib/time/format';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';

  let {
    profile,
    me,
    hours,
    ondone,
  }: {
    profile: Schemas['ProfileForm'];
    me: Schemas['Me'];
    hours: Schemas['HoursView'] | undefined;
    ondone: () => Promise<void>;
  } = $props();

  // The choice starts from what is set.
  // svelte-ignore state_referenced_locally
  let zone = $state(profile.zone);
  const attempt = new Attempt();
  const problem = $derived(attempt.problem);
  const here = ownZone();

  async function keep(): Promise<void> {
    await attempt.run(async () => {
      if (zone !== profile.zone) {
        await must(api.PUT('/api/me/profile', { body: { ...profile, zone } }));
        await must(api.PUT('/api/workspace', { body: { name: me.workspace, zone } }));
        if (hours)
          await must(
            api.PUT('/api/hours/{id}', {
              params: { path: { id: hours.id } },
              body: { version: hours.version, form: { name: hours.name, document: { ...hours.document, zone } } },
            }),
          );
      }
      await ondone();
    });
  }
</script>

{#if problem}<ProblemNote {problem} />{/if}
<p>
  Your time zone is <strong>{cityOf(zone)}</strong>, where it is <strong>{timeOf(me.now, zone)}</strong> now.
</p>
{#if here !== zone}<p class="mt-1 text-amber-text">
    This browser is in {cityOf(here)}, where it is {timeOf(me.now, here)}.
  </p>{/if}
<div class="mt-3 flex flex-wrap items-center gap-3">
  <ZoneSelect id="first-zone" label="Your time zone" class="w-64" bind:value={zone} />
  <ActionButton kind="main" onclick={() => void keep()}>Yes, that’s right</ActionButton>
</div>
