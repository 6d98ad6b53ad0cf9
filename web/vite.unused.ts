import postcss from 'postcss';
import type { Plugin } from 'vite';

const NEVER_DARK = /\.never-dark/;
const OTHER_COLOURS =
  /-(blue|lime|pink|teal|purple|cyan|orange|yellow|indigo|violet|emerald|amber|fuchsia|sky|rose|green)-\d{2,3}/;

/**
 * Leaves out styles of the component library that no screen uses, which a phone would have to read: its own dark ones,
 * which never apply (app.css makes them hang on .never-dark), and those in the colours of its palette, where we have
 * tokens.
 */
export function leaveOutUnused(): Plugin {
  return {
    name: 'leave-out-unused',
    transform(code, id) {
      if (!id.endsWith('/app.css')) return undefined;
      const root = postcss.parse(code);
      root.walkRules((rule) => {
        if (rule.selectors.every((selector) => NEVER_DARK.test(selector) || OTHER_COLOURS.test(selector)))
          rule.remove();
      });
      return { code: root.toString(), map: null };
    },
  };
}
