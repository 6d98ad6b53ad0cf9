<script lang="ts">
  import { faultOf } from '$lib/api/problem';
  import { Attempt } from '$lib/api/Attempt.svelte';
  import TextButton from '$lib/ui/TextButton.svelte';

  interface Props {
    label: string;
    /** Where the picture is; null where there is none. */
    picture: string | null;
    isWide?: boolean;
    set: (form: FormData) => Promise<unknown>;
    remove: () => Promise<unknown>;
    onchanged: () => void;
  }

  let { label, picture, isWide = false, set, remove, onchanged }: Props = $props();

  const attempt = new Attempt();

  async function choose(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    const form = new FormData();
    form.append('file', file);
    if (await attempt.run(() => set(form))) onchanged();
    input.value = '';
  }

  async function take(): Promise<void> {
    if (await attempt.run(remove)) onchanged();
  }
</script>

<div>
  <p class="mb-1">{label}</p>
  <div class="flex flex-wrap items-center gap-3">
    {#if picture}<img
        src={picture}
        alt="{label} as it is"
        class="rounded-lg border border-line object-cover {isWide ? 'h-16 w-40' : 'h-16 w-16'}"
      />{/if}
    <label class="inline-flex min-h-9 cursor-pointer items-center underline underline-offset-4 focus-within:outline-3">
      {picture ? 'Choose another' : 'Choose a PNG or JPEG'}<input
        type="file"
        accept="image/png,image/jpeg"
        class="sr-only"
        aria-label={label}
        onchange={(event) => void choose(event.currentTarget)}
      />
    </label>
    {#if picture}<TextButton class="min-h-9" aria-label="Remove the {label.toLowerCase()}" onclick={() => void take()}
        >Remove</TextButton
      >{/if}
  </div>
  {#if attempt.problem}<p class="mt-1 text-sm text-brick" role="alert">
      {faultOf(attempt.problem, 'file')}
    </p>{/if}
</div>
