import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import regexp from 'eslint-plugin-regexp';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['build/**', '.svelte-kit/', '.data/', '.cache/', 'node_modules/', 'test-results/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  {
    // What a person typed may be long: no pattern may take more than one pass over it.
    files: ['core/**/*.ts', 'src/**/*.{ts,svelte}', 'scripts/**/*.ts'],
    ignores: ['**/*.test.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }]
    }
  },
  {
    // A function does one thing: exceptions say why, where they stand.
    files: ['core/**/*.ts', 'src/**/*.{ts,svelte}'],
    ignores: ['**/*.test.ts'],
    rules: {
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      complexity: ['error', 12],
      'max-params': ['error', 4]
    }
  },
  {
    // Where the core knows more than the compiler, it says why; a file of inner loops says so once, at its top.
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'error' }
  },
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      eqeqeq: ['error', 'always'],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      // Every link is an absolute path of this server; there is no base path.
      'svelte/no-navigation-without-resolve': 'off',
      // Maps and queries made and read within one function need not be reactive.
      'svelte/prefer-svelte-reactivity': 'off',
      // What the browser keeps (theme, folded ticket) is read after hydration, so that server and page agree at first.
      'svelte/prefer-writable-derived': 'off'
    }
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig } }
  },
  {
    // The core has no clock and no randomness of its own: both come in as arguments.
    files: ['core/**/*.ts'],
    rules: {
      'no-console': 'error',
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' }
      ],
      'no-restricted-syntax': ['error', 'NewExpression[callee.name="Date"][arguments.length=0]']
    }
  }
);
