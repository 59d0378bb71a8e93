/** How verdicts are marked: a sign and a word, never colour alone. */
export const SIGNS = {
  possible: { look: 'ok', sign: '✓', words: 'possible' },
  consequences: { look: 'warn', sign: '!', words: 'possible, with consequences' },
  impossible: { look: 'bad', sign: '✗', words: 'impossible' },
} as const

export const COVERAGE = {
  covers: { sign: '✓', words: 'covers' },
  marginal: { sign: '≈', words: 'just covers' },
  short: { sign: '✗', words: 'dark corners' },
  unknown: { sign: '?', words: 'circle not stated' },
  impossible: { sign: '–', words: 'does not mount' },
} as const

export const FLICKER = {
  none: { look: 'ok', sign: '✓', words: 'nothing to see' },
  borderline: { look: 'warn', sign: '≈', words: 'borderline: shoot a test' },
  shows: { look: 'bad', sign: '✗', words: 'shows' },
} as const
