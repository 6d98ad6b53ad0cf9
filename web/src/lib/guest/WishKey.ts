/** One key for one wish: asked again after a lost answer, the server finds what it made of it. */
export class WishKey {
  #last: { of: string; key: string } | undefined;

  /** @param wish All that is asked for, as text. */
  keyFor(wish: string): string {
    if (this.#last?.of !== wish) {
      const random = crypto.getRandomValues(new Uint8Array(16));
      this.#last = { of: wish, key: [...random].map((byte) => byte.toString(16).padStart(2, '0')).join('') };
    }
    return this.#last.key;
  }
}
