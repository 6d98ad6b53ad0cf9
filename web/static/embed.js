/*
 * Shows a booking page in a frame that is as tall as what is in it. On the outer page:
 *   <script async src="https://(this site)/embed.js" data-page="/desk/page"></script>
 * What happens in it is told as events of the frame, which bubble: lantern:opened, and lantern:booked with { start, end }.
 */
(() => {
  const script = document.currentScript;
  const origin = new URL(script.src).origin;
  const address = new URL(script.dataset.page ?? '/', origin);
  if (address.origin !== origin) return;
  const frame = document.createElement('iframe');
  frame.src = address.href;
  frame.title = script.dataset.title ?? 'Reserve a time';
  frame.style.cssText = 'display:block;width:100%;min-height:480px;border:0';
  script.after(frame);
  addEventListener('message', (event) => {
    if (event.source !== frame.contentWindow || event.origin !== origin || event.data?.from !== 'loose-lantern') return;
    if (event.data.what === 'height') frame.style.height = `${Math.ceil(event.data.detail)}px`;
    else
      frame.dispatchEvent(new CustomEvent(`lantern:${event.data.what}`, { bubbles: true, detail: event.data.detail }));
  });
})();
