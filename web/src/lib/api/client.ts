import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** The token that every changing request of a signed-in person bears; it changes when somebody signs in or out. */
let token: Promise<string> | undefined;

export function forgetToken(): void {
  token = undefined;
}

async function currentToken(): Promise<string> {
  token ??= fetch('/api/token').then(async (answer) => ((await answer.json()) as Schemas['TokenAnswer']).token);
  return token;
}

let undoable: (() => void) | undefined;

/** What is done from now on, and can be taken back, is told to this one. Returns what ends that. */
export function onUndoable(told: () => void): () => void {
  undoable = told;
  return () => {
    if (undoable === told) undoable = undefined;
  };
}

const bearToken: Middleware = {
  async onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-Lantern-Token', await currentToken());
    return request;
  },
  async onResponse({ response }) {
    // Signing in or out in another tab changes the token; the next try asks for the new one.
    if (response.headers.has('X-Lantern-Undo-Until')) undoable?.();
    if (response.status === 400 && (await response.clone().text()).includes('urn:loose-lantern:token')) forgetToken();
    return response;
  },
};

/** For the screens of people who are signed in. */
export const api = createClient<paths>({ baseUrl: '' });
api.use(bearToken);

/** For guests: no cookie and no token is needed. */
export const guestApi = createClient<paths>({ baseUrl: '', credentials: 'omit' });
