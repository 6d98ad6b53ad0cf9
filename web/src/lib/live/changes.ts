const AT_MOST_EVERY = 800;

/**
 * Listens for changes that the server tells of, for as long as the screen is looked at. A screen that comes back to the front asks anew at
 * once, since nothing was heard meanwhile. Returns what ends it.
 */
export function watchChanges(path: string, onchange: () => void): () => void {
  let source: EventSource | undefined;
  let waiting: ReturnType<typeof setTimeout> | undefined;

  // Several changes near one another are one; the first shows at once.
  let quietUntil = 0;
  function changed(): void {
    const wait = quietUntil - performance.now();
    if (wait <= 0) {
      quietUntil = performance.now() + AT_MOST_EVERY;
      onchange();
    } else {
      waiting ??= setTimeout(() => {
        waiting = undefined;
        changed();
      }, wait);
    }
  }

  function open(): void {
    if (source || document.visibilityState !== 'visible') return;
    source = new EventSource(path);
    source.addEventListener('changed', changed);
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
    clearTimeout(waiting);
    close();
  };
}
