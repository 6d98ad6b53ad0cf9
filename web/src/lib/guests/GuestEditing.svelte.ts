import { api, type Schemas } from '$lib/api/client';
import { FormState } from '$lib/api/FormState.svelte';
import { must } from '$lib/api/problem';

type Detail = Schemas['GuestDetail'];
export type GuestForm = Schemas['GuestForm'];

export const blankGuest: GuestForm = {
  name: '',
  emails: [''],
  organisation: '',
  phone: '',
  zone: null,
  language: null,
  clock: null,
  keeperId: null,
  fields: {},
};

export function formOf(guest: Detail): GuestForm {
  return {
    name: guest.name,
    emails: guest.emails.length > 0 ? [...guest.emails] : [''],
    organisation: guest.organisation,
    phone: guest.phone,
    zone: guest.zone,
    language: guest.language,
    clock: guest.clock,
    keeperId: guest.keeperId,
    fields: { ...guest.fields },
  };
}

/** A guest while they are written down or changed. */
export class GuestEditing extends FormState<GuestForm> {
  #saved: Detail | undefined;

  constructor(saved?: Detail) {
    super(saved ? formOf(saved) : blankGuest);
    this.#saved = saved;
  }

  /** The guest as they are saved; undefined where `problem` says what stood in the way. */
  async save(): Promise<Detail | undefined> {
    const body = { ...this.form, emails: this.form.emails.filter((email) => email.trim() !== '') };
    return this.attempt(async () => {
      const saved = this.#saved
        ? await must(
            api.PUT('/api/guests/{id}', {
              params: { path: { id: this.#saved.id } },
              body: { version: this.#saved.version, form: body },
            }),
          )
        : await must(api.POST('/api/guests', { body }));
      this.#saved = saved;
      this.keep(formOf(saved));
      return saved;
    });
  }
}
