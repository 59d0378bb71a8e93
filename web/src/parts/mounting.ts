/** How combinations and coverage are marked: a sign and a word, never colour alone. */
export const SIGNS = {
  possible: { sign: '✓', words: 'possible' },
  consequences: { sign: '!', words: 'possible, with consequences' },
  impossible: { sign: '✗', words: 'impossible' },
} as const

export const COVERAGE = {
  covers: { sign: '✓', words: 'covers' },
  marginal: { sign: '≈', words: 'only just' },
  short: { sign: '✗', words: 'dark corners' },
  unknown: { sign: '?', words: 'circle not stated' },
  impossible: { sign: '–', words: 'does not go on' },
} as const
