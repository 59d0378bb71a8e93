/** Clips and stills that are dropped on the page: of each only the first and last bytes are sent, and only facts are listed. */
import * as client from './client'
import { zoneMinutes } from './logEntries'
import type { ClipFacts } from './types'

/** As on the server: `media/heads.py`. */
const HEAD = 3_000_000
const TAIL = 4_000_000
const AT_ONCE = 3
const READ = /\.(mov|mp4|m4v|mxf|mkv|avi|jpe?g|tiff?|png|csv|json|jsonl|ndjson)$/i

/** What is known of a file of which nothing could be read. */
const unreadFacts = (file: File, why: string): ClipFacts => ({
  name: file.name, bytes: file.size, unread: why.slice(0, 400), raster: null, pixel_aspect: null, fps: null, interlaced: null, codec: '',
  bits: null, timecode: '', seconds: null, at: null, reel: '', body: '', lens: '', focal_mm: null, f_number: null, t_stop: null, ei: null,
  shutter_deg: null, focus_m: null, read_mm: null, pitch_um: null, still: false, tags: {},
}) // prettier-ignore

export class ClipReader {
  /** How many of how many are read. */
  done = $state(0)
  all = $state(0)
  /** What could not be read, with the reason. */
  problems = $state.raw<string[]>([])
  told = $state('')
  busy = $state(false)
  #stop = false

  constructor(private readonly productionId: number) {}

  stop() {
    this.#stop = true
  }

  /** Read files, and list what they say with a day. */
  async read(files: readonly File[], to: { unit: string; day: string; by: string }): Promise<boolean> {
    const wanted = files.filter((file) => READ.test(file.name))
    this.busy = true
    this.#stop = false
    this.done = 0
    this.all = wanted.length
    this.problems = []
    this.told = ''
    const offset = zoneMinutes()
    const facts: ClipFacts[] = []
    const waiting = [...wanted]
    const work = async () => {
      for (let file = waiting.shift(); file && !this.#stop; file = waiting.shift()) {
        const head = Math.min(file.size, HEAD)
        const tail = Math.max(file.size - TAIL, head)
        const query = { name: file.name, size: file.size, head, offset_min: offset }
        const { data, problem } = await client.readClipHead(
          this.productionId,
          query,
          new Blob([file.slice(0, head), file.slice(tail)]),
        )
        if (data) facts.push(...data.facts)
        else if (problem.code === 'no_answer') this.problems = [...this.problems, problem.message]
        // One that cannot be read is a file of the day all the same.
        else facts.push(unreadFacts(file, problem.message))
        this.done += 1
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, work))
    const listed = await this.#list(facts, to, offset)
    const others = files.length - wanted.length
    if (others)
      this.problems = [
        ...this.problems,
        others === 1
          ? '1 file is no clip, still or table.'
          : `${others} files are no clips, stills or tables.`,
      ]
    this.busy = false
    return listed
  }

  async #list(facts: ClipFacts[], to: { unit: string; day: string; by: string }, offset_min: number) {
    if (!facts.length) {
      this.told = 'Nothing could be listed.'
      return false
    }
    const { data, problem } = await client.listClips(this.productionId, { facts, ...to, offset_min })
    this.told = data ? `${data.added} listed, ${data.there} were there.` : problem.message
    return data !== undefined
  }
}
