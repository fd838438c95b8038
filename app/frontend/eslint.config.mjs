import { fileURLToPath } from 'node:url';

import js from '@eslint/js';
import importX from 'eslint-plugin-import-x';
import globals from 'globals';
import tseslint from 'typescript-eslint';

const scripts = ['src/main/resources/static/js/**/*.js'];

export default [
  { ignores: ['target/**', 'frontend/**', '**/js/vendor/**'] },
  {
    files: scripts,
    ...js.configs.recommended,
    languageOptions: { ecmaVersion: 2023, sourceType: 'module', globals: { ...globals.browser, ...globals.worker, AudioWorkletProcessor: 'readonly', registerProcessor: 'readonly', sampleRate: 'readonly' } },
    plugins: { 'import-x': importX },
    rules: {
      ...js.configs.recommended.rules,
      'import-x/no-cycle': 'error',
      'import-x/no-self-import': 'error',
      'import-x/no-unresolved': 'error',
      'no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'prefer-const': 'error',
      'no-var': 'error',
      'max-lines': ['error', 310],
    },
  },
  {
    // a promise that nobody waits for hides its failure: where the types are checked, this is checked too
    files: ['src/main/resources/static/js/{bench/edits,takes/delivery,takes/kept-takes}.js'],
    plugins: { '@typescript-eslint': tseslint.plugin },
    languageOptions: { parser: tseslint.parser, parserOptions: { project: 'frontend/jsconfig.json', tsconfigRootDir: fileURLToPath(new URL('..', import.meta.url)) } },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
];
