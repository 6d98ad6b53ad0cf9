<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { cityOf } from '$lib/time/clock';
  import { dateIn, dayMonth, fullDate, timeOf } from '$lib/time/format';
  import { languageName, valueInWords } from './filter';

  interface Props {
    guest: Schemas['GuestDetail'];
    fields: Schemas['GuestFieldView'][];
    zone: string;
    now: string;
  }

  let { guest, fields, zone, now }: Props = $props();
  const link = 'underline decoration-line-strong underline-offset-4 wrap-anywhere';
</script>

{#each guest.flags as flag (`${flag.bookingId} ${flag.flag}`)}
  <p class="mb-2 border-l-4 border-ink bg-lane px-3 py-1.5">
    <strong>Flagged:</strong>
    {flag.flag}
    <a class="text-fine {link}" href="/work/bookings/{flag.bookingId}"
      >{flag.page}, {dayMonth(dateIn(flag.start, zone))}</a
    >
  </p>
{/each}
<dl class="grid grid-cols-[minmax(92px,auto)_1fr] gap-x-4 gap-y-1.5">
  {#if guest.organisation}
    <dt class="text-muted">Organisation</dt>
    <dd class="wrap-anywhere">{guest.organisation}</dd>
  {/if}
  <dt class="text-muted">Email</dt>
  <dd>
    {#each guest.emails as email (email)}<a class="flex min-h-6 items-center {link}" href="mailto:{email}">{email}</a
      >{:else}<span class="text-muted">none{guest.bookerEmail ? `; booked for by ${guest.bookerEmail}` : ''}</span
      >{/each}
  </dd>
  {#if guest.phone}
    <dt class="text-muted">Phone</dt>
    <dd>
      <a class="inline-flex min-h-6 items-center {link}" href="tel:{guest.phone.replaceAll(/[^0-9+]/g, '')}"
        >{guest.phone}</a
      >
    </dd>
  {/if}
  <dt class="text-muted">Time zone</dt>
  <dd>
    {#if guest.zone}{cityOf(guest.zone)}{guest.zone === zone
        ? ''
        : `, ${timeOf(now, guest.zone)} there now`}{:else}<span class="text-muted">not known</span>{/if}
  </dd>
  <dt class="text-muted">Language</dt>
  <dd>
    {#if guest.language}{languageName(guest.language)}{:else}<span class="text-muted">not known</span
      >{/if}{#if guest.clock},
      {guest.clock === 'h12' ? '12-hour clock' : '24-hour clock'}{/if}
  </dd>
  <dt class="text-muted">Keeper</dt>
  <dd>
    {#if guest.keeperName}{guest.keeperName}{:else}<span class="text-muted">nobody</span>{/if}
  </dd>
  {#each fields as field (field.id)}
    {@const value = guest.fields[field.id]}
    {#if value !== undefined}
      <dt class="text-muted">{field.name}</dt>
      <dd class="wrap-anywhere whitespace-pre-line">
        {field.kind === 'date' ? fullDate(value) : valueInWords(field.kind, value)}
      </dd>
    {/if}
  {/each}
  <dt class="text-muted">Bookings</dt>
  <dd>{guest.bookings}</dd>
  <dt class="text-muted">Links</dt>
  <dd>{guest.offers}</dd>
  <dt class="text-muted">Known since</dt>
  <dd>{fullDate(dateIn(guest.madeAt, zone))}</dd>
  {#if guest.erasedFrom}
    <dt class="text-muted">Erased on</dt>
    <dd>{fullDate(dateIn(guest.erasedFrom > now ? guest.erasedFrom : now, zone))}</dd>
  {/if}
</dl>
