import { atMostEvery } from './throttle';

const AT_MOST_EVERY = 800;

/** How long to wait where the server tells no more screens of changes. */
const ASK_EVERY = 30_000;

/** How long a screen may have been loading when it begins to watch: what was heard meanwhile it may not know of. */
const WHILE_LOADING = 3_000;

/**
 * One connection to a path, for all who watch it: browsers keep no more than a few to one server at once, over all
 * their tabs.
 */
class Line {
  readonly #path: string;
  readonly #watchers = new Set<() => void>();
  #source: EventSource | undefined;
  #heardAt = -Infinity;
  #isBroken = false;
  #asking: ReturnType<typeof setTimeout> | undefined;

  constructor(path: string) {
    this.#path = path;
  }

  /** Returns whether nobody watches any more, once the returned function is called. */
  add(watcher: () => void): () => boolean {
    this.#watchers.add(watcher);
    if (this.#watchers.size === 1) {
      document.addEventListener('visibilitychange', this.#turn);
      this.#open();
    } else if (performance.now() - this.#heardAt < WHILE_LOADING) watcher();
    return () => {
      this.#watchers.delete(watcher);
      if (this.#watchers.size > 0) return false;
      document.removeEventListener('visibilitychange', this.#turn);
      this.#close();
      return true;
    };
  }

  #tell(): void {
    this.#heardAt = performance.now();
    for (const watcher of [...this.#watchers]) watcher();
  }

  #open(): void {
    if (this.#source || document.visibilityState !== 'visible') return;
    const source = new EventSource(this.#path);
    source.addEventListener('changed', () => this.#tell());
    // Nothing was heard while the line was broken.
    source.addEventListener('error', () => {
      this.#isBroken = true;
      // Refused, and not only broken off, which browsers mend by themselves: too many screens are told already.
      if (source.readyState === EventSource.CLOSED) this.#askLater();
    });
    source.addEventListener('open', () => {
      if (this.#isBroken) this.#tell();
      this.#isBroken = false;
    });
    this.#source = source;
  }

  #askLater(): void {
    clearTimeout(this.#asking);
    this.#asking = setTimeout(() => {
      this.#close();
      this.#tell();
      this.#open();
    }, ASK_EVERY);
  }

  #close(): void {
    clearTimeout(this.#asking);
    this.#source?.close();
    this.#source = undefined;
    this.#isBroken = false;
  }

  readonly #turn = (): void => {
    if (document.visibilityState !== 'visible') return this.#close();
    this.#tell();
    this.#open();
  };
}

const lines = new Map<string, Line>();

/**
 * Listens for changes that the server tells of, for as long as the screen is looked at. A screen that comes back to the
 * front asks anew at once, since nothing was heard meanwhile, and so does one whose line was broken. Returns what ends
 * it.
 */
export function watchChanges(path: string, onchange: () => void): () => void {
  const line = lines.get(path) ?? new Line(path);
  lines.set(path, line);
  const changed = atMostEvery(AT_MOST_EVERY, onchange);
  const leave = line.add(changed.call);
  return () => {
    changed.stop();
    if (leave()) lines.delete(path);
  };
}
