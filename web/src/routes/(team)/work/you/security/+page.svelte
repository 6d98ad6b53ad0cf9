<script lang="ts">
  import { askAnew } from '$lib/live/anew';
  import ChangePassword from '$lib/you/ChangePassword.svelte';
  import SecondFactor from '$lib/you/SecondFactor.svelte';
  import SignIns from '$lib/you/SignIns.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Signing in – Loose Lantern</title></svelte:head>

<div class="space-y-5">
  <SignIns signIns={data.security.signIns} zone={data.me.zone} onchanged={() => void askAnew()} />
  <SecondFactor
    isOn={data.security.secondFactor}
    codesLeft={data.security.recoveryCodes}
    onchanged={() => void askAnew()}
  />
  <ChangePassword onchanged={() => void askAnew()} />
</div>
