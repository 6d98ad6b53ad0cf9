<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import Sentence from '$lib/pages/Sentence.svelte';
  import type { LinkEditing } from './LinkEditing.svelte';
  import { languages } from './languages';
  import TextButton from '$lib/ui/TextButton.svelte';
  import ZoneSelect from '$lib/ui/ZoneSelect.svelte';

  interface Props {
    link: LinkEditing;
    /** Guests who were here before. */
    known: Schemas['KnownGuest'][];
  }

  let { link, known }: Props = $props();

  const MOST_GUESTS = 10;
  const PAUSE = 250;
  /** Of those who were here before, the ones whom what is typed may mean. */
  let found = $state.raw<Schemas['KnownGuest'][]>([]);
  let asking: ReturnType<typeof setTimeout> | undefined;
  const listed = $derived([...new Map([...found, ...known].map((guest) => [guest.email, guest])).values()]);
  const guests = $derived(link.form.guests.length === 0 ? [{ name: '', email: '' }] : link.form.guests);

  /** Whoever was here before brings along what is known of them. */
  function set(at: number, change: Partial<Schemas['LinkGuest']>): void {
    const next = guests.map((guest, i) => (i === at ? { ...guest, ...change } : guest));
    const met = change.name === undefined ? undefined : listed.find((guest) => guest.name === change.name);
    if (met) {
      next[at] = { name: met.name, email: met.email };
      if (at === 0) {
        link.form.guestZone = met.zone;
        link.form.guestLanguage = met.language;
      }
    }
    link.form.guests = next.filter((guest, i) => i === at || guest.name !== '' || guest.email !== '');
  }

  /** Looks for guests of that name who were here longer ago than those who are listed anyway. */
  function look(typed: string): void {
    clearTimeout(asking);
    const search = typed.trim();
    if (search.length < 2) return;
    asking = setTimeout(
      () =>
        void must(api.GET('/api/links/beginnings', { params: { query: { search } } })).then(
          (answer) => (found = answer.guests),
          () => undefined,
        ),
      PAUSE,
    );
  }

  function takeOut(at: number): void {
    link.form.guests = guests.filter((_, i) => i !== at);
  }
</script>

<datalist id="known-guests"
  >{#each listed as guest (guest.email)}<option value={guest.name}>{guest.email}</option>{/each}</datalist
>
<Sentence mends={[link.mend('title'), ...link.mendsUnder('guests'), ...link.mendsUnder('guestZone')]}>
  <span class="w-60 max-md:w-full"
    ><Input
      aria-label="Title that the guest reads"
      placeholder="what it is about"
      class="py-1.5 font-semibold"
      bind:value={link.form.title}
    /></span
  >
  {#if !link.form.details.isAmongOurselves}
    for
    {#each guests as guest, at (at)}
      <span class="inline-flex items-center gap-1.5">
        <span class="w-40"
          ><Input
            aria-label={at === 0 ? 'Guest’s name' : `Name of guest ${at + 1}`}
            placeholder="guest’s name"
            list="known-guests"
            class="py-1.5"
            bind:value={
              () => guest.name,
              (name) => {
                set(at, { name: name ?? '' });
                look(name ?? '');
              }
            }
          /></span
        >
        <span class="w-48"
          ><Input
            aria-label={at === 0 ? 'Guest’s email' : `Email of guest ${at + 1}`}
            type="email"
            placeholder="email, if we send it"
            class="py-1.5"
            bind:value={() => guest.email, (email) => set(at, { email: email ?? '' })}
          /></span
        >
        {#if guests.length > 1}<button
            type="button"
            class="h-9 w-7"
            aria-label="Remove {guest.name || `guest ${at + 1}`}"
            onclick={() => takeOut(at)}>×</button
          >{/if}
      </span>
    {/each}
    {#if link.form.guests.length > 0 && guests.length < MOST_GUESTS}<TextButton
        class="min-h-9"
        onclick={() => (link.form.guests = [...guests, { name: '', email: '' }])}>+ guest</TextButton
      >{/if}
    {#if link.form.guests.length > 1}
      <span class="w-56"
        ><Select
          aria-label="Whether they come together"
          placeholder=""
          classes={{ select: 'py-1.5' }}
          bind:value={
            () => (link.form.details.together ? 'together' : 'each'),
            (how) => link.setDetails({ together: how === 'together' })
          }
          items={[
            { value: 'together', name: 'all at one time' },
            { value: 'each', name: 'each their own time' },
          ]}
        /></span
      >
    {/if}
    in
    <ZoneSelect
      id="guest-zone"
      label="Guest’s time zone"
      none="time zone unknown"
      class="w-52"
      box="py-1.5"
      bind:value={link.form.guestZone}
    />
    in
    <span class="w-28"
      ><Select
        aria-label="Language of what is written to the guest"
        placeholder=""
        classes={{ select: 'py-1.5' }}
        bind:value={link.form.guestLanguage}
        items={languages}
      /></span
    >
  {/if}
</Sentence>
