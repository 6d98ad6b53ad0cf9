<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { EditorState } from './EditorState.svelte';
  import PageEditor from './PageEditor.svelte';

  interface Props {
    page: Schemas['PageView'];
    hosts: Schemas['HostView'][];
    desks: Schemas['DeskView'][];
    calendars: Schemas['CalendarView'][];
    pages: Schemas['PageName'][];
    me: Schemas['Me'];
    tokens: Schemas['TokenView'][];
    guestFields: Schemas['GuestFieldView'][];
    record: Schemas['RecordLine'][];
  }

  let { page, hosts, desks, calendars, pages, me, tokens, guestFields, record }: Props = $props();

  // Made once a visit: what is typed must not be replaced by what a colleague saves meanwhile; saving tells of that.
  // svelte-ignore state_referenced_locally
  const editor = new EditorState(page.form, page);
</script>

<PageEditor {editor} {hosts} {desks} {calendars} {pages} {me} {tokens} {guestFields} {record} />
