<script lang="ts">
  import { goto } from '$app/navigation';
  import LetterForm from '$lib/letters/LetterForm.svelte';
  import ActionButton from '$lib/ui/ActionButton.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  const chosen = $derived(data.letters.letters.find((one) => one.id === data.chosen));
  const isNew = $derived(data.chosen === 'new' || data.letters.letters.length === 0);

  const saved = (id: string | undefined): Promise<void> =>
    goto(id === undefined ? '/work/guests/letters' : `/work/guests/letters?letter=${id}`, { invalidateAll: true });
</script>

<svelte:head><title>Letters – Loose Lantern</title></svelte:head>

<p class="mb-1"><a class="text-muted underline underline-offset-4" href="/work/guests">Guests</a></p>
<header class="mb-4 flex flex-wrap items-center justify-between gap-3">
  <h1 class="text-page">Letters</h1>
  {#if !isNew}<ActionButton kind="main" href="/work/guests/letters?letter=new">New letter</ActionButton>{/if}
</header>
<div
  class="grid items-start gap-5 {data.letters.letters.length > 0 ? 'lg:grid-cols-[280px_minmax(0,1fr)]' : 'max-w-3xl'}"
>
  {#if data.letters.letters.length > 0}
    <nav aria-label="Letters" class="rounded-2xl border border-line bg-card p-3">
      <ul>
        {#each data.letters.letters as letter (letter.id)}
          <li>
            <a
              class="block rounded-lg px-3 py-2 wrap-anywhere hover:bg-lane {letter.id === chosen?.id
                ? 'bg-lane font-bold'
                : ''}"
              aria-current={letter.id === chosen?.id ? 'page' : undefined}
              href="/work/guests/letters?letter={letter.id}"
              >{letter.form.name}<span class="block text-fine font-normal text-muted"
                >{letter.form.isTeams ? 'the team’s' : 'yours'}</span
              ></a
            >
          </li>
        {/each}
      </ul>
    </nav>
  {/if}
  {#if isNew || chosen}
    <section class="rounded-2xl border border-line bg-card p-5" aria-label={chosen?.form.name ?? 'New letter'}>
      {#key `${chosen?.id ?? 'new'} ${chosen?.version ?? 0}`}
        <LetterForm saved={chosen} answer={data.letters} onsaved={(id) => void saved(id)} />
      {/key}
    </section>
  {:else}
    <p class="text-muted">Choose a letter to change it.</p>
  {/if}
</div>
