/** Whether the page stands in a frame of another page. */
export function isEmbedded(): boolean {
  return window.parent !== window;
}

/** Tells the outer page. Anybody may hear it, so it bears nothing that only the guest may know. */
export function tellFrame(what: 'height' | 'opened' | 'booked', detail: unknown = null): void {
  if (window.parent !== window) window.parent.postMessage({ from: 'loose-lantern', what, detail }, '*');
}

/** Keeps the outer page told how tall this one is. Returns what ends it. */
export function tellHeight(): () => void {
  if (!isEmbedded()) return () => undefined;
  // The document is as tall as its frame at the least, so what is in the body is measured.
  const watch = new ResizeObserver(() => tellFrame('height', document.body.scrollHeight));
  watch.observe(document.body);
  return () => watch.disconnect();
}

/** Goes on to an address outside, in the whole window. */
export function leaveFor(address: string): void {
  // Of another site's window nothing but this may be set.
  (window.top ?? window).location.href = address;
}
