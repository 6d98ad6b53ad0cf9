<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    blanks: Schemas['BlankView'][];
    onchoose: (name: string) => void;
  }

  let { blanks, onchoose }: Props = $props();
</script>

<details>
  <summary class="inline-flex min-h-9 cursor-pointer items-center text-muted underline underline-offset-4"
    >Blanks to fill in</summary
  >
  <ul class="mt-2 grid gap-x-5 gap-y-1 sm:grid-cols-2">
    {#each blanks as blank (blank.name)}
      <li class="flex flex-wrap items-baseline gap-x-2">
        <button
          type="button"
          class="min-h-7 font-mono text-fine underline decoration-line-strong underline-offset-4"
          onclick={() => onchoose(blank.name)}>{`{{ ${blank.name} }}`}</button
        >
        <span class="text-fine text-muted">{blank.means}</span>
      </li>
    {/each}
  </ul>
</details>
