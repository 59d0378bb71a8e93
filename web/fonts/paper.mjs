/**
 * Writes the fonts of printed pages, as TrueType files that stand in the Python package: `npm run paper-fonts`.
 *
 * They are the faces of the screen, so that a page on the screen and the same page in a file have their words in the
 * same places: Latin with all its accents; signs, Greek and
 * Cyrillic come from the second family.
 */
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import subsetFont from 'subset-font'

const web = join(import.meta.dirname, '..')
const out = join(web, '../src/hextan/paper/fonts')
const source = (name, set, weight) =>
  readFile(join(web, 'node_modules', '@fontsource', name, 'files', `${name}-${set}-${weight}-normal.woff2`))

function signs(...ranges) {
  return ranges
    .flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)))
    .join('')
}
const ALL = signs([0x20, 0x7e], [0xa0, 0x24f], [0x1e00, 0x1eff], [0x2000, 0x20bf])
/** Greek and Cyrillic, thirds and arrows, signs of mathematics, blocks and ticks. */
const OF_SIGNS = signs(
  [0x370, 0x3e1],
  [0x3f0, 0x52f],
  [0x2032, 0x2033],
  [0x2070, 0x209f],
  [0x2150, 0x22ff],
  [0x2580, 0x25ff],
  [0x2610, 0x2718],
)

for (const [name, set, weight, file, text] of [
  ['ibm-plex-sans-condensed', 'latin', 400, 'words', ALL],
  ['ibm-plex-sans-condensed', 'latin', 500, 'strong', ALL],
  ['ibm-plex-sans-condensed', 'latin-ext', 400, 'words-more', ALL],
  ['ibm-plex-sans-condensed', 'latin-ext', 500, 'strong-more', ALL],
  ['dejavu-sans', 'latin', 400, 'signs', OF_SIGNS],
]) {
  const font = await subsetFont(await source(name, set, weight), text, {
    targetFormat: 'sfnt',
    noHinting: true,
  })
  await writeFile(join(out, `${file}.ttf`), font)
  console.log(file, font.length)
}
