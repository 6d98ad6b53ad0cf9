<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { mendOf, type Problem } from '$lib/api/problem';
  import { cityOf } from '$lib/time/clock';
  import TextButton from '$lib/ui/TextButton.svelte';
  import type { MailingGuest } from './mailing';

  interface Props {
    guests: MailingGuest[];
    /** Of the same guests, in the same order; undefined while they are looked up. */
    letters: Schemas['MailingLetter'][] | undefined;
    faults: Problem | undefined;
    /** Whose letter is shown. */
    at: number;
    onshow: (at: number) => void;
    onremove: (at: number) => void;
  }

  let { guests, letters, faults, at, onshow, onremove }: Props = $props();

  function mendFor(i: number): string | undefined {
    for (const field of ['', '.name', '.email', '.zone', '.language', '.own.subject', '.own.body']) {
      const mend = mendOf(faults, `guests[${String(i)}]${field}`);
      if (mend) return mend;
    }
    return undefined;
  }

  function asides(i: number): string[] {
    const letter = letters?.[i];
    if (!letter) return [];
    return [
      ...(letter.guestId === null ? ['new'] : []),
      ...(letter.offersOut > 0 ? [letter.offersOut === 1 ? 'has a link out' : 'has links out'] : []),
      ...(guests[i]?.own ? ['own words'] : []),
    ];
  }
</script>

<ul class="max-h-80 overflow-y-auto rounded-lg border border-line" aria-label="Guests of this mailing">
  {#each guests as guest, i (guest.email)}
    <li class="flex items-center gap-3 border-t border-line px-3 py-1 first:border-t-0 {i === at ? 'bg-lane' : ''}">
      <button
        type="button"
        class="min-h-9 min-w-0 flex-1 text-left"
        aria-current={i === at ? 'true' : undefined}
        onclick={() => onshow(i)}
      >
        <span class="font-semibold">{guest.name}</span>
        <span class="text-fine break-all {i === at ? '' : 'text-muted'}"
          >{guest.email}{letters?.[i] ? `, ${cityOf(letters[i].zone)}` : ''}</span
        >
        {#each asides(i) as aside (aside)}
          <span
            class="ml-1 inline-block whitespace-nowrap rounded-full border border-line-strong px-2 text-fine {i === at
              ? ''
              : 'text-muted'}">{aside}</span
          >
        {/each}
        {#if letters?.[i] && letters[i].unfilled.length > 0}
          <span class="block text-fine text-brick-text"
            >nothing known for {letters[i].unfilled.map((name) => `{{ ${name} }}`).join(', ')}</span
          >
        {/if}
        {#if mendFor(i)}<span class="block text-fine text-brick-text">{mendFor(i)}</span>{/if}
      </button>
      <TextButton onclick={() => onremove(i)}><span class="sr-only">{guest.name}: </span>Take off</TextButton>
    </li>
  {/each}
</ul>
