import { api, type Schemas } from '$lib/api/client';
import { must, problemOf, type Problem } from '$lib/api/problem';
import { blocksWith, comingOf, erasedAll, erasedOne, isStill, placeOf, withAll, withOne } from './blocks';
import type { BoardSpan } from './pieces';

/** What was done to a block and waits for "only this one" or "all of them". */
interface Asked {
  coming: Schemas['BoardBlock'];
  /** Where it goes; undefined where it is erased. */
  to?: BoardSpan;
  /** Whether all of them can go the same way; not to another weekday. */
  mayAll: boolean;
}

/** Changes of office hours that are made on a board. Each is saved at once and can be taken back. */
export class BoardEditing {
  asked = $state.raw<Asked | undefined>(undefined);
  problem = $state.raw<Problem | undefined>(undefined);
  told = $state<string | undefined>(undefined);
  undo = $state.raw<(() => Promise<void>) | undefined>(undefined);

  readonly #board: () => Schemas['BoardAnswer'];
  readonly #refresh: () => Promise<void>;

  constructor(board: () => Schemas['BoardAnswer'], refresh: () => Promise<void>) {
    this.#board = board;
    this.#refresh = refresh;
  }

  async change(key: string, to: BoardSpan): Promise<void> {
    const coming = comingOf(this.#board(), key);
    if (!coming) return;
    const mayAll = placeOf(this.#board(), coming.zone, to).start.slice(0, 10) === coming.start.slice(0, 10);
    if (coming.repeats) this.asked = { coming, to, mayAll };
    else await this.#save(coming, to, false);
  }

  async erase(key: string): Promise<void> {
    const coming = comingOf(this.#board(), key);
    if (!coming) return;
    if (coming.repeats) this.asked = { coming, mayAll: true };
    else await this.#save(coming, undefined, false);
  }

  async answer(all: boolean): Promise<void> {
    const asked = this.asked;
    this.asked = undefined;
    if (asked) await this.#save(asked.coming, asked.to, all);
  }

  tell(told: string): void {
    this.told = told;
    this.undo = undefined;
  }

  async takeBack(): Promise<void> {
    const undo = this.undo;
    this.told = undefined;
    this.undo = undefined;
    if (undo) await undo();
  }

  async #save(coming: Schemas['BoardBlock'], to: BoardSpan | undefined, all: boolean): Promise<void> {
    const path = { id: coming.pageId };
    try {
      const page = await must(api.GET('/api/pages/{id}', { params: { path } }));
      const form = page.published ?? page.form;
      const before = form.times.blocks?.list ?? [];
      if (!isStill(before, coming)) {
        this.problem = {
          status: 409,
          title: 'Someone else has changed these office hours.',
          detail: 'The board shows them now as they are; make your change once more.',
        };
        await this.#refresh();
        return;
      }
      const place = to && placeOf(this.#board(), coming.zone, to);
      const list = place
        ? (all ? withAll : withOne)(before, coming, place)
        : (all ? erasedAll : erasedOne)(before, coming);
      if (list.length === 0) {
        this.problem = {
          status: 409,
          title: 'This is the last block of its page.',
          detail: `Unpublish “${form.title}” instead, or paint another block for it first.`,
        };
        return;
      }
      const saved = await must(
        api.PUT('/api/pages/{id}/blocks', {
          params: { path },
          body: { version: page.version, blocks: blocksWith(form, list) },
        }),
      );
      this.problem = undefined;
      this.told = to ? `“${form.title}” is where you put it. Guests see it so now.` : `Erased from “${form.title}”.`;
      this.undo = () => this.#restore(path, saved.version, blocksWith(form, before));
    } catch (thrown) {
      this.problem = problemOf(thrown);
    }
    await this.#refresh();
  }

  async #restore(path: { id: string }, version: number, blocks: Schemas['BlocksForm']): Promise<void> {
    try {
      await must(api.PUT('/api/pages/{id}/blocks', { params: { path }, body: { version, blocks } }));
    } catch (thrown) {
      this.problem = problemOf(thrown);
    }
    await this.#refresh();
  }
}
