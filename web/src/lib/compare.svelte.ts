/** Comparisons: made of the Bench, edited like any document. */
import * as client from './client'
import { LETTERS } from './compared'
import { DocumentEditor } from './editor.svelte'
import { newKey } from './rows'
import type { BenchState, CompareColumn, ComparisonDocument, ComparisonKept, CompareView } from './types'

export class ComparisonEditor extends DocumentEditor<ComparisonDocument, CompareView> {
  constructor(productionId: number, kept: ComparisonKept, onkept: () => void) {
    const kind = {
      draftKey: `hextan.comparison.${productionId}.${kept.id}`,
      read: () => client.readComparison(productionId, kept.id),
      sheet: async (document: ComparisonDocument, signal: AbortSignal) => {
        const { data, problem } = await client.viewComparison(productionId, document, signal)
        if (data) return { data }
        // The fields are those of the document itself.
        const faults = problem.faults.map((f) => ({ ...f, field: f.field.replace(/^document\./, '') }))
        return { problem: { ...problem, faults } }
      },
      write: (version: number, document: ComparisonDocument) =>
        client.writeComparison(productionId, kept.id, version, document),
    }
    super(kind, productionId, kept, onkept)
  }

  setColumn(index: number, part: Partial<CompareColumn>, kind = '') {
    const columns = this.document.columns.map((c, i) => (i === index ? { ...c, ...part } : c))
    this.change({ ...this.document, columns }, kind && `${index} ${kind}`)
  }

  /** Every other camera takes its nearest match, one after another; says what each took, or why it took none. */
  async matchAll(): Promise<string> {
    const { document } = this
    let columns = document.columns
    const told: string[] = []
    const master = Math.max(
      columns.findIndex((column) => column.key === document.master),
      0,
    )
    for (let index = 0; index < columns.length; index++) {
      if (index === master) continue
      const { data, problem } = await client.matchCamera(this.productionId, { ...document, columns }, index)
      const best = data?.options[0]
      if (best) columns = columns.map((c, i) => (i === index ? (best.column as CompareColumn) : c))
      told.push(`${LETTERS[index]}: ${best?.text ?? data?.advice[0] ?? problem?.message ?? ''}`)
    }
    this.change({ ...document, columns, case: 'as_set' })
    return told.join(' ')
  }
}

export function columnOfBench(bench: BenchState, format_id = bench.format_id): CompareColumn {
  const here = format_id === bench.format_id
  return {
    key: newKey(),
    label: '',
    format_id,
    lens_id: bench.lens_id,
    adapter_id: bench.adapter_id,
    second_adapter_id: bench.second_adapter_id,
    focal_mm: bench.focal_mm,
    stop: bench.stop,
    subject_m: bench.subject_m,
    focus_m: bench.focus_m,
    fps: bench.fps,
    shutter_deg: bench.light.shutter === 'angle' ? bench.light.shutter_deg : 180,
    crop_ids: here ? bench.crop_ids : [],
    ei: here ? bench.light.ei : null,
    nd_stops: bench.light.nd_stops,
    trim_stops: 0,
    trim_width_percent: 0,
    trim_note: '',
  }
}

/** The Bench beside its pinned formats; without pins beside itself. */
export function comparisonOfBench(bench: BenchState, name: string): ComparisonDocument {
  const others = bench.pinned.filter((id) => id !== bench.format_id).slice(0, 3)
  const formats = others.length ? others : [bench.format_id]
  return comparisonOf(bench, [columnOfBench(bench), ...formats.map((id) => columnOfBench(bench, id))], name)
}

/** Set-ups under what a Bench has in common with them. */
export function comparisonOf(bench: BenchState, columns: CompareColumn[], name: string): ComparisonDocument {
  return {
    schema: 'hextan.comparison',
    schema_version: 1,
    name,
    case: 'as_set',
    master: null,
    within_percent: 10,
    columns,
    delivery: bench.delivery,
    reference: bench.reference,
    coc: bench.coc,
    scene: bench.scene,
    lux: bench.light.known_by === 'lux' ? bench.light.lux : 100,
    unit: bench.unit,
  }
}
