<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { placeKinds } from '$lib/guest/place';
  import { inWords } from '$lib/pages/units';

  let { usual }: { usual: Schemas['UsualAnswer'] } = $props();

  const said = $derived([
    { what: inWords(usual.now.duration ?? 0), from: usual.sources.duration },
    { what: `${usual.now.bufferBefore ?? 0} min free before`, from: usual.sources.bufferBefore },
    { what: `${usual.now.bufferAfter ?? 0} min after`, from: usual.sources.bufferAfter },
    { what: `notice of ${inWords(usual.now.notice ?? 0)}`, from: usual.sources.notice },
    {
      what: (placeKinds.find((kind) => kind.value === usual.now.placeKind)?.text ?? '').toLowerCase(),
      from: usual.sources.placeKind,
    },
  ]);
  const whose = { product: 'as it comes', workspace: 'the workspace’s', person: 'yours' } as const;
  const groups = $derived(
    (['person', 'workspace', 'product'] as const)
      .map((from) => ({ from, what: said.filter((one) => one.from === from).map((one) => one.what) }))
      .filter((group) => group.what.length > 0),
  );
</script>

<p class="mb-1 text-sm text-muted" data-test="usual-sources">
  From the defaults: {groups.map((group) => `${group.what.join(', ')} (${whose[group.from]})`).join('; ')}.
  <a class="underline underline-offset-4" href="/work/you/usual">Change defaults</a>
</p>
