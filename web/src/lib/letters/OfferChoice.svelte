<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import type { Schemas } from '$lib/api/client';
  import { mendOf, type Problem } from '$lib/api/problem';
  import Field from '$lib/ui/Field.svelte';
  import { choiceOf, offerOf, type Offer } from './writing';

  interface Props {
    offer: Offer;
    items: { value: string; name: string }[];
    hosts: Schemas['HostView'][];
    faults: Problem | undefined;
    /** Today, and two weeks from then. */
    today: string;
    usualUntil: string;
  }

  let { offer = $bindable(), items, hosts, faults, today, usualUntil }: Props = $props();

  const mayBeOffered = $derived(hosts.filter((host) => host.mayOffer && host.kind === 'person'));

  function choose(choice: string): void {
    const next = offerOf(choice, offer);
    offer = next.kind === 'pattern' ? { ...next, until: next.until ?? usualUntil } : next;
  }
</script>

<Field label="Offer" id="offer" mend={mendOf(faults, 'offer.id') ?? mendOf(faults, 'offer.kind')}
  ><Select id="offer" placeholder="" bind:value={() => choiceOf(offer), choose} {items} /></Field
>
{#if offer.kind === 'pattern'}
  <div class="grid gap-4 sm:grid-cols-2">
    <Field label="With" id="with" mend={mendOf(faults, 'times.lineUp')}
      ><Select
        id="with"
        placeholder=""
        bind:value={
          () => offer.lineUp?.[0]?.hostIds[0] ?? '',
          (id) => (offer = { ...offer, lineUp: id === '' ? null : [{ hostIds: [id], fill: 'inOrder' }] })
        }
        items={[
          { value: '', name: 'the pattern’s hosts' },
          ...mayBeOffered.map((host) => ({ value: host.id, name: host.name })),
        ]}
      /></Field
    >
    <Field label="Until" id="until" mend={mendOf(faults, 'offer.until')}
      ><Input
        id="until"
        type="date"
        min={today}
        bind:value={() => offer.until ?? '', (until) => (offer = { ...offer, until: until || undefined })}
      /></Field
    >
  </div>
{/if}
