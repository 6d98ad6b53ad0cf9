<script lang="ts">
  import { onMount } from 'svelte';
  import { idOf, type SectionLine } from './sections';

  let { sections }: { sections: readonly SectionLine[] } = $props();

  let current = $state('');

  // The one that is read is marked as the reader goes on.
  onMount(() => {
    const seen = new Map<string, boolean>();
    const observer = new IntersectionObserver(
      (entries) => {
        for (const entry of entries) seen.set(entry.target.id, entry.isIntersecting);
        current = sections.map((section) => idOf(section.title)).find((id) => seen.get(id)) ?? current;
      },
      { rootMargin: '-110px 0px -50% 0px' },
    );
    for (const { title } of sections) {
      const element = document.getElementById(idOf(title));
      if (element) observer.observe(element);
    }
    return () => observer.disconnect();
  });

  function go(event: MouseEvent, title: string): void {
    event.preventDefault();
    const element = document.getElementById(idOf(title));
    element?.scrollIntoView({ block: 'start' });
    element?.querySelector<HTMLElement>('input, select, textarea, button')?.focus({ preventScroll: true });
  }
</script>

<nav aria-label="Sections of the page" class="text-sm max-lg:hidden lg:sticky lg:top-[98px]">
  <ol>
    {#each sections as { title, words } (title)}
      {@const id = idOf(title)}
      <li>
        <a
          href="#{id}"
          aria-current={current === id ? 'true' : undefined}
          class="block border-l-4 py-1 pl-2.5 leading-tight {current === id
            ? 'border-ink'
            : 'border-line hover:border-line-strong'}"
          onclick={(event) => go(event, title)}
          ><span class={current === id ? 'font-semibold' : ''}>{title}</span><span class="block text-fine text-muted"
            >{words}</span
          ></a
        >
      </li>
    {/each}
  </ol>
</nav>
