<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { kinds, stateInWords } from '$lib/post/words';
  import { counted } from '$lib/time/format';
  import { byReader } from './byReader';

  let { post, zone }: { post: Schemas['PostRow'][]; zone: string } = $props();

  const readers = $derived(byReader(post));
</script>

<section class="rounded-2xl border border-line bg-card p-5" aria-labelledby="post">
  <h2 id="post" class="mb-1 text-lg">Post</h2>
  {#each readers as { reader, mails } (mails[0]?.id)}
    <details class="border-t border-line py-1.5 first-of-type:border-t-0" open={readers.length <= 2}>
      <summary class="min-h-6 cursor-pointer"
        ><span class="font-semibold">{reader}</span>
        <span class="text-sm text-muted">{counted(mails.length, 'mail', 'mails')}</span>
        {#if mails.some((mail) => mail.state === 'failed')}<span class="text-sm text-brick">, one failed</span
          >{/if}</summary
      >
      <ul class="pb-1 pl-4">
        {#each mails as mail (mail.id)}
          <li class="py-1">
            <a class="underline decoration-line-strong underline-offset-4" href="/work/post?message={mail.id}"
              >{mail.subject}</a
            >
            <span class="block text-sm text-muted"
              >{kinds[mail.kind]};
              <span class={mail.state === 'failed' ? 'text-brick' : ''}>{stateInWords(mail, zone)}</span></span
            >
          </li>
        {/each}
      </ul>
    </details>
  {:else}
    <p class="text-muted">No mail was written about it.</p>
  {/each}
</section>
