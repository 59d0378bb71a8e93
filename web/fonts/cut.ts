/**
 * Cuts the fonts at build: to Latin-1, which people type, and to the signs that stand in our sources.
 *
 * Three families: one for words, one for figures, and one for the signs that neither of them has (arrows, ticks,
 * infinity, thirds), so that no sign is drawn by whatever font a machine happens to have.
 */
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises'
import { extname, join } from 'node:path'
import { Blob, Face } from 'harfbuzzjs'
import subsetFont from 'subset-font'
import type { Plugin } from 'vite'

const WORDS = [
  { from: 'ibm-plex-sans-condensed', family: 'IBM Plex Sans Condensed', weights: [400, 500] },
  { from: 'ibm-plex-mono', family: 'IBM Plex Mono', weights: [400, 500] },
]
const SIGNS = { from: 'dejavu-sans', family: 'Signs', weight: 400 }
/** Letters of other names, which people type now and then: loaded when one is shown. */
const OTHER_LETTERS = 'U+0100-02AF,U+1E00-1EFF'

const web = join(import.meta.dirname, '..')
const out = join(web, '.fonts')
/** Where text that is shown is written, and in what kinds of files. */
const SOURCES = ['src', '../src/hextan']
const KINDS = ['.svelte', '.ts', '.css', '.py', '.json']

async function signsOf(folder: string): Promise<string[]> {
  const found = await readdir(join(web, folder), { recursive: true, withFileTypes: true })
  const files = found.filter(
    (f) => f.isFile() && KINDS.includes(extname(f.name)) && !f.name.includes('.test.'),
  )
  const texts = await Promise.all(files.map((f) => readFile(join(f.parentPath, f.name), 'utf8')))
  return texts.flatMap((text) => [...text].filter((sign) => sign > '\u00ff'))
}

function latin1(): string[] {
  const codes = Array.from({ length: 0x100 }, (_, code) => code)
  return codes.filter((c) => (c >= 0x20 && c < 0x7f) || c >= 0xa0).map((c) => String.fromCodePoint(c))
}

const source = (name: string, set: string, weight: number) =>
  readFile(join(web, 'node_modules', '@fontsource', name, 'files', `${name}-${set}-${weight}-normal.woff2`))

/** The signs among these that a font can draw. */
async function drawnBy(font: Buffer, signs: readonly string[]): Promise<Set<string>> {
  const face = new Face(new Blob(await subsetFont(font, signs.join(''), { targetFormat: 'sfnt' })), 0)
  return new Set([...face.collectUnicodes()].map((code) => String.fromCodePoint(code)))
}

function rule(family: string, weight: number, file: string, range: string): string {
  return `@font-face {
  font-family: '${family}';
  font-weight: ${weight};
  font-display: swap;
  src: url('./${file}') format('woff2');
  unicode-range: ${range};
}
`
}

const LATIN_1 = 'U+20-7E,U+A0-FF'
const rangeOf = (signs: Iterable<string>) =>
  [...signs].map((sign) => `U+${sign.codePointAt(0)?.toString(16)}`).join(',')

/** Writes the fonts and their style sheet to `.fonts/`. Fails where a sign of the sources is in no font. */
export async function cutFonts(): Promise<void> {
  await mkdir(out, { recursive: true })
  const inSources = [...new Set((await Promise.all(SOURCES.map(signsOf))).flat())].sort()
  const wanted = [...latin1(), ...inSources]
  const missing = new Set(inSources)
  const rules: string[] = []
  for (const { from, family, weights } of WORDS)
    for (const weight of weights) {
      const font = await source(from, 'latin', weight)
      const has = await drawnBy(font, wanted)
      for (const sign of inSources) if (weight === 400 && has.has(sign)) missing.delete(sign)
      const file = `${from}-${weight}.woff2`
      await writeFile(
        join(out, file),
        await subsetFont(font, wanted.join(''), { targetFormat: 'woff2', noHinting: true }),
      )
      rules.push(
        rule(family, weight, file, `${LATIN_1},${rangeOf(inSources.filter((sign) => has.has(sign)))}`),
      )
      const others = `${from}-${weight}-other.woff2`
      await writeFile(join(out, others), await source(from, 'latin-ext', weight))
      rules.push(rule(family, weight, others, OTHER_LETTERS))
    }
  const font = await source(SIGNS.from, 'latin', SIGNS.weight)
  const has = await drawnBy(font, [...missing])
  const nowhere = [...missing].filter((sign) => !has.has(sign))
  if (nowhere.length) throw new Error(`These signs stand in the sources and in no font: ${nowhere.join(' ')}`)
  await writeFile(
    join(out, 'signs.woff2'),
    await subsetFont(font, [...missing].join(''), { targetFormat: 'woff2', noHinting: true }),
  )
  rules.push(rule(SIGNS.family, SIGNS.weight, 'signs.woff2', rangeOf(missing)))
  await writeFile(join(out, 'fonts.css'), rules.join(''))
}

/** Has the fonts ready before anything is built or served. */
export const fonts = (): Plugin => ({ name: 'fonts', apply: () => !process.env.VITEST, buildStart: cutFonts })
