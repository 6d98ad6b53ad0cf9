import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', 'src/lib/api/schema.ts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  ...svelte.configs.prettier,
  {
    languageOptions: { globals: { ...globals.browser } },
    rules: {
      // The type checker knows better what is defined.
      'no-undef': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      // The site lies at the root of its host; its paths need no base put before them.
      'svelte/no-navigation-without-resolve': 'off',
      // Most sets and search parameters here live within one function and are never drawn.
      'svelte/prefer-svelte-reactivity': 'off',
      // Entries of what is being typed go as they come.
      '@typescript-eslint/no-dynamic-delete': 'off',
      // {' '} is how a space is kept between two parts that stand on lines of their own.
      'svelte/no-useless-mustaches': 'off',
    },
  },
  // What a test looks for has to be there; where it is not, the test fails there and then.
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
  },
);
