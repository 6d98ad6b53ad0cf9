<script lang="ts">
  import NewLink from '$lib/links/NewLink.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.url}
  <NewLink
    form={data.form}
    from={data.from}
    setting={data}
    beginnings={data.beginnings}
    me={data.me}
    today={data.today}
    ours={data.ours}
  />
{/key}
