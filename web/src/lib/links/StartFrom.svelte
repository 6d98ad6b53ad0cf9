<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api, type Schemas } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import { dateIn, dayMonth, lengthOf } from '$lib/time/format';
  import { fromEvent, fromLink, fromPage, type LinkForm, type Setting } from './form';

  interface Props {
    from: Setting;
    beginnings: Schemas['BeginningsAnswer'];
    ours: boolean;
    onstart: (form: LinkForm) => void;
  }

  let { from, beginnings, ours, onstart }: Props = $props();

  const PAUSE = 250;
  let open = $state(false);
  let search = $state('');
  let found = $state.raw<Schemas['BeginningsAnswer'] | undefined>(undefined);
  const shown = $derived(found ?? beginnings);
  const nothing = $derived(shown.pages.length + shown.links.length + shown.patterns.length + shown.events.length === 0);

  $effect(() => {
    const words = search.trim();
    if (words === '') {
      found = undefined;
      return undefined;
    }
    const timer = setTimeout(
      () =>
        void must(api.GET('/api/links/beginnings', { params: { query: { search: words } } })).then(
          (answer) => (found = answer),
          () => undefined,
        ),
      PAUSE,
    );
    return () => clearTimeout(timer);
  });

  function start(form: LinkForm): void {
    open = false;
    onstart(form);
  }

  async function page(id: string): Promise<void> {
    start(fromPage(from, (await must(api.GET('/api/pages/{id}', { params: { path: { id } } }))).form));
  }

  async function earlier(id: string): Promise<void> {
    const view = await must(api.GET('/api/links/{id}', { params: { path: { id } } }));
    start(fromLink(from, view.form, `“${view.row.title}” of ${dayMonth(dateIn(view.row.madeAt, from.zone))}`));
  }

  /** Whom the event names is asked only now; where that can't be told (any more), whoever had it is taken. */
  async function event(one: Schemas['EventBeginning']): Promise<void> {
    const people = await must(
      api.GET('/api/links/beginnings/events/{entry}', { params: { path: { entry: one.entry } } }),
    ).catch(() => ({ guests: [], hostIds: one.hostIds }));
    start(fromEvent(from, one, ours ? { ...people, guests: [] } : people));
  }

  async function takeAway(id: string): Promise<void> {
    await must(api.DELETE('/api/links/patterns/{id}', { params: { path: { id } } })).catch(() => undefined);
    found = await must(api.GET('/api/links/beginnings', { params: { query: { search: search.trim() } } })).catch(
      () => found,
    );
  }

  const group = 'flex gap-2 max-md:flex-col max-md:gap-1';
  const name = 'w-20 shrink-0 content-center text-sm text-muted md:h-9';
  const chip = 'min-h-9 rounded-full border border-line-strong bg-card px-3 text-sm hover:bg-lane max-md:min-h-11';
</script>

{#snippet more(count: number)}
  {#if count > 0}<li class="content-center text-sm text-muted">{count} more, found by searching</li>{/if}
{/snippet}

<details bind:open class="mb-3 rounded-2xl border border-line bg-card px-4 py-2">
  <summary class="min-h-9 cursor-pointer content-center font-semibold"
    >Start from a page, an earlier link, a pattern or an event</summary
  >
  <div class="space-y-2 pt-1 pb-2">
    <div class="w-72 max-md:w-full">
      <Input
        type="search"
        aria-label="Search what to start from"
        placeholder="guest, page or words"
        class="py-1.5"
        bind:value={search}
      />
    </div>
    {#if nothing}<p class="text-muted">Nothing found. Fill in the form below.</p>{/if}
    {#if !ours && shown.pages.length > 0}
      <div class={group}>
        <span class={name}>pages</span>
        <ul class="flex flex-1 flex-wrap items-center gap-2" aria-label="Pages">
          {#each shown.pages as one (one.id)}<li>
              <button type="button" class={chip} onclick={() => void page(one.id)}>{one.title}</button>
            </li>{/each}
          {@render more(shown.more.pages)}
        </ul>
      </div>
    {/if}
    {#if shown.links.length > 0}
      <div class={group}>
        <span class={name}>links</span>
        <ul class="flex flex-1 flex-wrap items-center gap-2" aria-label="Earlier links">
          {#each shown.links as one (one.id)}<li>
              <button type="button" class={chip} onclick={() => void earlier(one.id)}
                >{one.title}{one.guests.length > 0 ? `, ${one.guests.join(', ')}` : ''}
                <span class="text-muted">{dayMonth(dateIn(one.madeAt, from.zone))}</span></button
              >
            </li>{/each}
          {@render more(shown.more.links)}
        </ul>
      </div>
    {/if}
    {#if shown.patterns.length > 0}
      <div class={group}>
        <span class={name}>patterns</span>
        <ul class="flex flex-1 flex-wrap items-center gap-2" aria-label="Patterns">
          {#each shown.patterns as one (one.id)}<li>
              <button
                type="button"
                class={chip}
                onclick={() => start(fromLink(from, one.form, `the pattern “${one.name}”`))}>{one.name}</button
              ><button
                type="button"
                class="min-h-9 w-8 max-md:min-h-11"
                aria-label="Delete the pattern {one.name}"
                onclick={() => void takeAway(one.id)}>×</button
              >
            </li>{/each}
          {@render more(shown.more.patterns)}
        </ul>
      </div>
    {/if}
    {#if shown.events.length > 0}
      <div class={group}>
        <span class={name}>events</span>
        <ul class="flex flex-1 flex-wrap items-center gap-2" aria-label="Past events">
          {#each shown.events as one (one.title + one.start)}<li>
              <button type="button" class={chip} onclick={() => void event(one)}
                >{one.title}
                <span class="text-muted">{dayMonth(dateIn(one.start, from.zone))}, {lengthOf(one.minutes)}</span
                ></button
              >
            </li>{/each}
          {@render more(shown.more.events)}
        </ul>
      </div>
    {/if}
  </div>
</details>
