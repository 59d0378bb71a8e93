import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import svelte from 'eslint-plugin-svelte'
import { defineConfig } from 'eslint/config'
import globals from 'globals'
import ts from 'typescript-eslint'

/** The folders of parts, and which others each may use (docs/architecture.md); all may use lib. */
const PARTS = {
  controls: [],
  fields: [],
  grid: ['fields'],
  drawings: ['fields'],
  chain: ['controls', 'fields'],
  ask: [],
  page: ['controls', 'chain', 'ask'],
  productions: [],
  entry: ['controls'],
  documents: ['controls', 'fields', 'grid', 'drawings', 'chain'],
  kit: ['controls', 'fields', 'drawings', 'chain'],
  finder: ['controls', 'fields'],
  bench: ['controls', 'fields', 'drawings'],
  compare: ['controls', 'fields', 'chain', 'drawings'],
  shots: ['controls', 'drawings', 'grid'],
  packing: ['controls', 'fields', 'grid'],
  sheets: ['controls', 'fields'],
  set: ['controls', 'fields'],
}
const ABOVE_PARTS = ['**/views/**', '**/lib/client', '**/lib/bench.svelte']

const foldersOfParts = Object.entries(PARTS).map(([folder, may]) => ({
  files: [`src/parts/${folder}/**`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...ABOVE_PARTS,
          ...Object.keys(PARTS)
            .filter((other) => other !== folder && !may.includes(other))
            .map((other) => `../${other}/**`),
        ],
      },
    ],
  },
}))

export default defineConfig(
  { ignores: ['dist/', '.fonts/', 'node_modules/', 'src/lib/generated/'] },
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
    rules: { 'no-restricted-imports': ['error', { patterns: ABOVE_PARTS }] },
  },
  ...foldersOfParts,
)
