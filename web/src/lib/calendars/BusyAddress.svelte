<script lang="ts">
  import { api } from '$lib/api/client';
  import { must } from '$lib/api/problem';
  import SecretAddress from './SecretAddress.svelte';
</script>

<SecretAddress
  id="busy-address"
  title="Your busy times for other programs"
  label="Address of your busy times"
  get={async () => (await must(api.GET('/api/me/busy-times'))).path}
  make={async () => (await must(api.POST('/api/me/busy-times'))).path}
  stop={() => must(api.DELETE('/api/me/busy-times'))}
>
  A secret address tells when you are busy in the next 60 days, by your calendars that are asked and by bookings, and
  never with what. Any program that reads iCalendar free and busy times can ask it.
</SecretAddress>
