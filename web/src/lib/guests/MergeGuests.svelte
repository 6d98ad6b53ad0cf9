<script lang="ts">
  import { Radio } from 'flowbite-svelte';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { brings, compare } from './merging';

  interface Props {
    kept: Schemas['GuestDetail'];
    other: Schemas['GuestDetail'];
    fields: Schemas['GuestFieldView'][];
    onmerged: () => void;
    onclose: () => void;
  }

  let { kept, other, fields, onmerged, onclose }: Props = $props();

  const attempt = new Attempt();
  const facts = $derived(compare(kept, other, fields));
  let taken = $state<string[]>([]);

  async function merge(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const isDone = await attempt.run(() =>
      must(
        api.POST('/api/guests/{id}/merge', {
          params: { path: { id: kept.id } },
          body: { other: other.id, version: kept.version, otherVersion: other.version, take: taken },
        }),
      ),
    );
    if (isDone) onmerged();
  }
</script>

<Dialog title="Merge two guests" size="md" {onclose}>
  <form novalidate class="space-y-4" onsubmit={(event) => void merge(event)}>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    <p>
      {other.name}{other.emails[0] ? ` (${other.emails[0]})` : ''} becomes part of {kept.name}, with {brings(other)}.
      You can undo it later.
    </p>
    {#if facts.length > 0}
      <table class="w-full text-left">
        <caption class="sr-only">What is known of them from then on</caption>
        <tbody>
          {#each facts as fact (fact.name)}
            {@const isChoice = fact.kept !== '' && fact.other !== ''}
            <tr class="border-t border-line first:border-t-0">
              <th scope="row" class="py-1.5 pr-3 align-top font-normal text-muted">{fact.words}</th>
              <td class="py-1.5">
                {#if isChoice}
                  <div class="space-y-2">
                    <Radio
                      name="fact-{fact.name}"
                      checked={!taken.includes(fact.name)}
                      onchange={() => (taken = taken.filter((name) => name !== fact.name))}>{fact.kept}</Radio
                    >
                    <Radio
                      name="fact-{fact.name}"
                      checked={taken.includes(fact.name)}
                      onchange={() => (taken = [...taken, fact.name])}>{fact.other}</Radio
                    >
                  </div>
                {:else}<span class="wrap-anywhere">{fact.kept || fact.other}</span>{/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <div class="flex gap-3">
      <ActionButton type="submit" disabled={attempt.busy}>Merge guests</ActionButton>
      <ActionButton kind="quiet" onclick={onclose}>Cancel</ActionButton>
    </div>
  </form>
</Dialog>
