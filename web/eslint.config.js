import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import svelte from 'eslint-plugin-svelte'
import { defineConfig } from 'eslint/config'
import globals from 'globals'
import ts from 'typescript-eslint'

export default defineConfig(
  { ignores: ['dist/', 'node_modules/', 'src/lib/generated/'] },
  js.configs.recommended,
  ts.configs.strict,
  svelte.configs.recommended,
  prettier,
  svelte.configs.prettier,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'] } },
  },
  { files: ['**/*.svelte', '**/*.ts'], rules: { 'no-undef': 'off' } },
  {
    // Imports run one way: views -> parts -> lib.
    files: ['src/lib/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['**/parts/**', '**/views/**'] }] },
  },
  {
    files: ['src/parts/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: ['**/views/**', '**/lib/client', '**/lib/bench.svelte'] },
      ],
    },
  },
)
