<script lang="ts">
  import Dialog from '$lib/ui/Dialog.svelte';
  import { mainPress, ourKey, stepInList } from './keys';

  interface Props {
    /** Leads to the field that finds everything. */
    onfind: () => void;
  }

  let { onfind }: Props = $props();

  let sheet = $state.raw<{ key: string; does: string }[] | undefined>(undefined);

  function press(event: KeyboardEvent): void {
    const key = ourKey(event);
    if (key === '/') onfind();
    else if (key === '.') {
      const main = mainPress();
      if (!main) return;
      main.focus();
      main.click();
    } else if (key === '?') sheet = sheetHere();
    else if (!stepInList(event)) return;
    event.preventDefault();
  }

  /** What works here, and nothing that does not. */
  function sheetHere(): { key: string; does: string }[] {
    const name = mainPress()?.innerText.trim();
    return [
      { key: '/', does: 'Find a guest, booking, page, link, host, day or setting' },
      ...(name ? [{ key: '.', does: name }] : []),
      ...(document.querySelector('main tbody a[href]')
        ? [{ key: '↓ ↑', does: 'From one row of the list to the next, once it is entered by Tab' }]
        : []),
      ...(document.querySelector('main [data-lane]')
        ? [{ key: '← → ↑ ↓', does: 'Along a lane, and to the lanes beside it' }]
        : []),
      { key: '?', does: 'This list' },
    ];
  }
</script>

<svelte:window onkeydown={press} />

{#if sheet}
  <Dialog title="Keys on this screen" onclose={() => (sheet = undefined)}>
    <dl class="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
      {#each sheet as { key, does } (key)}
        <dt><kbd class="rounded border border-line-strong bg-lane px-2 py-0.5 font-bold">{key}</kbd></dt>
        <dd>{does}</dd>
      {/each}
    </dl>
    <p class="text-muted">
      They do nothing while you type. <a class="underline underline-offset-4" href="/work/you">Switch them off</a> in your
      profile.
    </p>
  </Dialog>
{/if}
