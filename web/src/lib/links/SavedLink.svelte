<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { LinkEditing } from './LinkEditing.svelte';
  import LinkEditor from './LinkEditor.svelte';
  import type { LinkSetting } from './setting';

  interface Props {
    saved: Schemas['LinkView'];
    setting: LinkSetting;
    me: { hostId: string | null; now: string };
    today: string;
    known: Schemas['KnownGuest'][];
    lately: readonly number[];
  }

  let { saved, setting, me, today, known, lately }: Props = $props();

  // Made once a visit; what colleagues do meanwhile is asked for by itself.
  // svelte-ignore state_referenced_locally
  const link = new LinkEditing(saved.form, saved);
</script>

<LinkEditor {link} {setting} {me} {today} {known} {lately} />
