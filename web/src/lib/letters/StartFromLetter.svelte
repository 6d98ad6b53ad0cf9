<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import Field from '$lib/ui/Field.svelte';

  interface Props {
    letters: Schemas['LetterView'][];
    onchoose: (letter: Schemas['LetterForm']) => void;
  }

  let { letters, onchoose }: Props = $props();
  let chosen = $state('');

  function choose(id: string): void {
    chosen = id;
    const letter = letters.find((one) => one.id === id)?.form;
    if (letter) onchoose(letter);
  }
</script>

{#if letters.length > 0}
  <Field label="Start from" id="from"
    ><Select
      id="from"
      placeholder=""
      bind:value={() => chosen, choose}
      items={[
        { value: '', name: 'an empty letter' },
        ...letters.map((one) => ({
          value: one.id,
          name: one.form.isTeams ? one.form.name : `${one.form.name} (yours)`,
        })),
      ]}
    /></Field
  >
{/if}
