import postcss, { type Root } from 'postcss';
import type { Plugin } from 'vite';

/**
 * Those that hang on a class that nothing has, or that are for scripts written from right to left, which we have not.
 */
const NEVER = /\.never-dark|(^|[^\w-])\.dark[ :]|\[dir=rtl\]|\.rtl\\:/;
const OTHER_COLOURS =
  /-(blue|lime|pink|teal|purple|cyan|orange|yellow|indigo|violet|emerald|amber|fuchsia|sky|rose|green)-\d{2,3}/;
const GRADIENTS = /^\.(from|via|to|shadow)-\w+-\d|^\.bg-linear-/;
const USED = /var\((--[\w-]+)/g;

/** Leaves out what is said of names that nothing reads. */
function leaveOutUnread(root: Root): void {
  const read = new Set<string>();
  root.walkDecls(({ value }) => {
    for (const [, name] of value.matchAll(USED)) if (name !== undefined) read.add(name);
  });
  root.walkDecls(/^--(color|tw)-/, (decl) => {
    if (!read.has(decl.prop)) decl.remove();
  });
  root.walkAtRules('property', (rule) => {
    if (!read.has(rule.params)) rule.remove();
  });
}

/**
 * Leaves out styles of the component library that no screen uses, which a phone would have to read: its own dark ones,
 * which never apply (look.css makes them hang on .never-dark), those in the colours of its palette, where we have
 * tokens, and its gradients.
 */
export function leaveOutUnused(): Plugin {
  return {
    name: 'leave-out-unused',
    transform(code, id) {
      if (!/\/(guest|team)\.css$/.test(id)) return undefined;
      const root = postcss.parse(code);
      root.walkRules((rule) => {
        const isUnused = (selector: string): boolean =>
          NEVER.test(selector) || OTHER_COLOURS.test(selector) || GRADIENTS.test(selector);
        if (rule.selectors.every(isUnused)) rule.remove();
        else rule.selectors = rule.selectors.filter((selector) => !NEVER.test(selector));
      });
      leaveOutUnread(root);
      return { code: root.toString(), map: null };
    },
  };
}
