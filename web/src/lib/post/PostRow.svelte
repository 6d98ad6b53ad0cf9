<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { kinds, stateInWords } from './words';

  interface Props {
    row: Schemas['PostRow'];
    zone: string;
    isOpened: boolean;
    onopen: () => void;
  }

  let { row, zone, isOpened, onopen }: Props = $props();
</script>

<li class="border-t border-line first:border-t-0">
  <button
    type="button"
    aria-pressed={isOpened}
    class="block w-full border-l-4 px-4 py-2.5 text-left hover:underline {isOpened
      ? 'border-l-ink'
      : 'border-l-transparent'}"
    onclick={onopen}
  >
    <span class="flex flex-wrap items-baseline gap-x-3">
      <span class="font-semibold">{row.toName}</span>
      <span class="text-sm text-muted">{kinds[row.kind]}</span>
      <span class="ml-auto text-sm {row.state === 'failed' || row.fault ? 'text-brick' : 'text-muted'}"
        >{stateInWords(row, zone)}</span
      >
    </span>
    <span class="block">{row.subject}</span>
  </button>
</li>
