import { atMostEvery } from './throttle';

const AT_MOST_EVERY = 800;

/**
 * Listens for changes that the server tells of, for as long as the screen is looked at. A screen that comes back to the front asks anew at
 * once, since nothing was heard meanwhile. Returns what ends it.
 */
export function watchChanges(path: string, onchange: () => void): () => void {
  let source: EventSource | undefined;
  const changed = atMostEvery(AT_MOST_EVERY, onchange);

  function open(): void {
    if (source || document.visibilityState !== 'visible') return;
    source = new EventSource(path);
    source.addEventListener('changed', changed.call);
  }

  function close(): void {
    source?.close();
    source = undefined;
  }

  function turn(): void {
    if (document.visibilityState !== 'visible') return close();
    onchange();
    open();
  }

  document.addEventListener('visibilitychange', turn);
  open();
  return () => {
    document.removeEventListener('visibilitychange', turn);
    changed.stop();
    close();
  };
}
