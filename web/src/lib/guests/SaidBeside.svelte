<script lang="ts">
  import { Attempt } from '$lib/api/Attempt.svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { askAnew } from '$lib/live/anew';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth } from '$lib/time/format';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';
  import { languageName, valueInWords } from './filter';
  import { formOf } from './GuestEditing.svelte';

  interface Props {
    guest: Schemas['GuestDetail'];
    fields: Schemas['GuestFieldView'][];
    zone: string;
    mayChange: boolean;
  }

  let { guest, fields, zone, mayChange }: Props = $props();

  const attempt = new Attempt();
  const names: Record<Exclude<Schemas['GuestFact'], 'field'>, string> = {
    name: 'Name',
    zone: 'Time zone',
    language: 'Language',
    phone: 'Phone',
  };

  const fieldOf = (said: Schemas['SaidOtherwise']): Schemas['GuestFieldView'] | undefined =>
    fields.find((field) => field.id === said.field);

  const nameOf = (said: Schemas['SaidOtherwise']): string =>
    said.fact === 'field' ? (fieldOf(said)?.name ?? '') : names[said.fact];

  function inWords(said: Schemas['SaidOtherwise']): string {
    const { fact, value } = said;
    const field = fieldOf(said);
    if (field) return valueInWords(field.kind, value);
    if (fact === 'zone') return cityOf(value);
    return fact === 'language' ? languageName(value) : value;
  }

  async function use({ fact, value, field }: Schemas['SaidOtherwise']): Promise<void> {
    const form = formOf(guest);
    const change = field === null ? { [fact]: value } : { fields: { ...form.fields, [field]: value } };
    const emails = guest.emails;
    await attempt.run(() =>
      must(
        api.PUT('/api/guests/{id}', {
          params: { path: { id: guest.id } },
          body: { version: guest.version, form: { ...form, emails, ...change } },
        }),
      ),
    );
    await askAnew();
  }
</script>

{#if guest.said.length > 0}
  <section aria-labelledby="said" class="rounded-2xl border border-dashed border-edge p-5">
    <h2 id="said" class="text-lg">Said when booking</h2>
    <p class="mb-1 text-fine text-muted">Anyone can type anything in a form, so it doesn’t replace what you know.</p>
    {#if attempt.problem}<ProblemNote problem={attempt.problem} />{/if}
    <ul>
      {#each guest.said as said (said.fact + (said.field ?? '') + said.value)}
        <li class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 first:border-t-0">
          <span class="text-muted">{nameOf(said)}</span>
          <a
            class="wrap-anywhere underline decoration-line-strong underline-offset-4"
            href="/work/bookings/{said.bookingId}">{inWords(said)}</a
          >
          <span class="text-fine text-muted">{dayMonth(dateIn(said.at, zone))}</span>
          {#if mayChange}<TextButton
              class="ml-auto min-h-7"
              aria-label="Use {inWords(said)} as {nameOf(said).toLowerCase()}"
              disabled={attempt.busy}
              onclick={() => void use(said)}>Use</TextButton
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
