<script lang="ts">
  import { mm, share } from '../../lib/format'
  import type { KitMatrix } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'
  import { angleText, cellText, verdictsOf } from './matrix'

  interface Props {
    matrix: KitMatrix
    /** The chosen cell. */
    at: { row: number; column: number } | null
    /** The Bench with this lens in this format. */
    hrefOf: (lensId: number, formatId: number, adapterIds: number[]) => string
  }
  let { matrix, at, hrefOf }: Props = $props()
  const row = $derived(at && matrix.rows[at.row])
  const column = $derived(at && matrix.columns[at.column])
  const by = $derived(matrix.reference.by)
</script>

<p class="told" aria-live="polite">
  {#if row && column && at}
    {@const j = at.column}
    {@const via = row.via[j]}
    {@const way = via == null ? undefined : row.ways[via]}
    <strong>{row.name}</strong> in <strong>{column.name}</strong> of {column.body}:
    {#if row.verdict[j] === 'impossible'}
      <span class="impossible">does not mount. {row.why_not[column.body_id] ?? ''}</span>
    {:else}
      {#if row.effective_mm[j] != null}<span class="accent figure">{cellText(row, j)} mm</span> by {by},{:else}a
        fisheye has no effective focal length;{/if}
      <span class="figure">{angleText(row, j)}</span> ({row.view_class[j]}), optical
      <span class="figure">{mm(row.focal_mm[j])} mm</span>{way?.adapter_ids.length
        ? ` with ${way.name}`
        : ''};
      {#each verdictsOf(row, j) as v, i (i)}<span class={v}
          >{row.long && verdictsOf(row, j).length > 1 ? (i ? ', long end ' : 'wide end ') : ''}{COVERAGE[v]
            .sign}
          {COVERAGE[v].words}</span
        >{/each}{#if row.stands_in['image_circle_mm']}, if its circle is as assumed{/if}:
      {#if row.circle_mm[j] != null}<span class="figure"
          >circle {mm(row.circle_mm[j])} of {mm(row.needed_mm[j])} mm</span
        >{#if row.dark_share[j]}, {share(row.dark_share[j] ?? 0)} dark ({row.dark_corners[j]?.length === 4
            ? 'all corners'
            : row.dark_corners[j]?.join(', ')}){/if}{:else}circle not stated{/if}.
      {#each row.pair_notes[column.body_id] ?? [] as note (note)}<span class="note">{note}. </span>{/each}
      {#each column.needs as need (need)}<span class="note">The format {need}. </span>{/each}
      <a class="link" href={hrefOf(row.lens_id, column.format_id, way?.adapter_ids ?? [])}>To the Bench</a>
    {/if}
  {:else}<span class="soft">Point at a cell, or go there with Tab and the arrow keys, for its figures.</span
    >{/if}
</p>

<style>
  .told {
    min-height: 42px;
    padding: 3px 10px;
    background: var(--cell);
    font-size: 14px;
  }
  .note {
    color: var(--warn);
  }
  .impossible {
    color: var(--bad);
  }
</style>
