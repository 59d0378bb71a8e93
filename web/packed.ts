import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import type { Plugin } from 'vite'

/** What is text, and large enough that fewer bytes are worth a header. */
const TEXT = /\.(js|css|html|svg|webmanifest)$/
const LEAST_BYTES = 1000

/** Every text of the page beside itself in fewer bytes, as well as it can be done: it is built once and loaded often. */
export function packed(): Plugin {
  let folder = ''
  return {
    name: 'packed',
    apply: 'build',
    enforce: 'post',
    configResolved: (config) => {
      folder = join(config.root, config.build.outDir)
    },
    // After the service worker is written, which does not know of these.
    closeBundle: {
      order: 'post',
      sequential: true,
      handler: () => {
        for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
          const file = join(entry.parentPath, entry.name)
          if (!entry.isFile() || !TEXT.test(entry.name)) continue
          const text = readFileSync(file)
          if (text.length < LEAST_BYTES) continue
          const size = { [constants.BROTLI_PARAM_SIZE_HINT]: text.length }
          writeFileSync(`${file}.br`, brotliCompressSync(text, { params: size }))
          writeFileSync(`${file}.gz`, gzipSync(text, { level: 9 }))
        }
      },
    },
  }
}
