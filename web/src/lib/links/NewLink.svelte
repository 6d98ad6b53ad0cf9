<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import type { LinkForm, Setting } from './form';
  import { LinkEditing } from './LinkEditing.svelte';
  import LinkEditor from './LinkEditor.svelte';
  import type { LinkSetting } from './setting';
  import StartFrom from './StartFrom.svelte';

  interface Props {
    form: LinkForm;
    from: Setting;
    setting: LinkSetting;
    beginnings: Schemas['BeginningsAnswer'];
    me: { hostId: string | null; now: string };
    today: string;
    ours: boolean;
  }

  let { form, from, setting, beginnings, me, today, ours }: Props = $props();

  // Made once a visit: what is typed stays, whatever is loaded again around it.
  // svelte-ignore state_referenced_locally
  let link = $state.raw(new LinkEditing(form));

  /** Starts anew from something, for the same guest. */
  function start(next: LinkForm): void {
    const kept =
      next.guests.length > 0
        ? next
        : {
            ...next,
            guests: $state.snapshot(link.form.guests),
            guestZone: link.form.guestZone,
            guestLanguage: link.form.guestLanguage,
          };
    link = new LinkEditing({ ...kept, details: { ...kept.details, isAmongOurselves: ours } });
  }
</script>

{#if link.saved === undefined}<StartFrom {from} {beginnings} {ours} onstart={start} />{/if}
{#key link}
  <LinkEditor {link} {setting} {me} {today} known={beginnings.guests} lately={beginnings.last.durations} />
{/key}
