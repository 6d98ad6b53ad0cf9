<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { GuestPageState } from '../GuestPageState.svelte';
  import GuestScreen from '../GuestScreen.svelte';
  import type { GuestSource } from '../source';

  interface Props {
    source: GuestSource;
    openings: Schemas['OpeningsAnswer'];
    /** The start of the last one, where these are not all. */
    last?: string | undefined;
    /** Where only what is in sight is drawn. */
    most?: { days: number; weeks: number } | undefined;
  }

  let { source, openings, last, most }: Props = $props();

  // It is drawn once.
  // svelte-ignore state_referenced_locally
  const guest = new GuestPageState(source);
  // svelte-ignore state_referenced_locally
  guest.take(openings, last);
</script>

<GuestScreen {guest} onchoose={() => undefined} {...most ? { most } : {}} />
