/** How verdicts are marked: a sign and a word, never colour alone. */
export const SIGNS = {
  possible: { sign: '✓', words: 'possible' },
  consequences: { sign: '!', words: 'possible, with consequences' },
  impossible: { sign: '✗', words: 'impossible' },
} as const

export const COVERAGE = {
  covers: { sign: '✓', words: 'covers' },
  marginal: { sign: '≈', words: 'just covers' },
  short: { sign: '✗', words: 'dark corners' },
  unknown: { sign: '?', words: 'circle not stated' },
  impossible: { sign: '–', words: 'does not mount' },
} as const

export const FLICKER = {
  none: { sign: '✓', words: 'nothing to see' },
  borderline: { sign: '≈', words: 'borderline: shoot a test' },
  shows: { sign: '✗', words: 'shows' },
} as const
