<script lang="ts">
  import { tick } from 'svelte'
  import { degrees, mm, share } from '../lib/format'
  import type { KitMatrix, MatrixRow } from '../lib/types'
  import { COVERAGE } from './mounting'

  interface Props {
    matrix: KitMatrix
    /** The Bench with this lens in this format. */
    hrefOf: (lensId: number, formatId: number, adapterIds: number[]) => string
  }
  let { matrix, hrefOf }: Props = $props()

  // Of a large kit only the cells near the view are drawn; rows keep their height, and columns the width of their heads.
  let scroller = $state<HTMLElement>()
  let rowPx = $state(35)
  let from = $state(0)
  let to = $state(24)
  let left = $state(0)
  let right = $state(16)
  const MARGIN = 3
  function lookAround() {
    if (!scroller) return
    const { scrollTop, clientHeight, scrollLeft, clientWidth } = scroller
    const rows = [...scroller.querySelectorAll<HTMLElement>('tr[data-row]')]
    const first = rows.findIndex((row) => row.offsetTop + row.offsetHeight >= scrollTop)
    const last = rows.findIndex((row) => row.offsetTop > scrollTop + clientHeight)
    const drawn = rows.find((row) => row.querySelector('td[data-c]'))
    if (drawn?.offsetHeight) rowPx = drawn.offsetHeight
    from = Math.max(0, first - MARGIN)
    to = (last < 0 ? rows.length : last) + MARGIN
    const heads = [...scroller.querySelectorAll<HTMLElement>('th[data-head]')]
    const begin = heads.findIndex((head) => head.offsetLeft + head.offsetWidth >= scrollLeft)
    const end = heads.findIndex((head) => head.offsetLeft > scrollLeft + clientWidth)
    left = Math.max(0, begin - MARGIN)
    right = Math.min(heads.length, (end < 0 ? heads.length : end) + MARGIN)
  }
  // Another matrix has other rows and columns in view: they are measured once they are there.
  $effect(() => {
    void matrix
    lookAround()
  })
  /** The cell under the pointer or the keyboard: row and column. */
  let at = $state<{ row: number; column: number } | null>(null)
  const row = $derived(at && matrix.rows[at.row])
  const column = $derived(at && matrix.columns[at.column])
  const by = $derived(matrix.reference.by)

  const MOVES: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  }
  // One listener for thousands of cells.
  function look(event: Event) {
    const cell = event.target instanceof Element ? event.target.closest<HTMLElement>('td[data-c]') : null
    if (!cell) return
    at = { row: Number(cell.dataset.r), column: Number(cell.dataset.c) }
  }
  async function onkeydown(event: KeyboardEvent) {
    const [down, across] = MOVES[event.key] ?? []
    if (down === undefined || across === undefined || !at) return
    const row = Math.max(0, Math.min(matrix.rows.length - 1, at.row + down))
    const column = Math.max(0, Math.min(matrix.columns.length - 1, at.column + across))
    if (row === at.row && column === at.column) return
    event.preventDefault()
    // A key that is held runs ahead of the drawing: where it leads is drawn first.
    at = { row, column }
    from = Math.min(from, row)
    to = Math.max(to, row + 1)
    left = Math.min(left, column)
    right = Math.max(right, column + 1)
    await tick()
    scroller?.querySelector<HTMLElement>(`td[data-r="${at.row}"][data-c="${at.column}"]`)?.focus()
  }
  const cellText = (r: MatrixRow, j: number) => {
    const short = r.effective_mm[j]
    const long = r.long?.effective_mm[j]
    return short == null ? '' : long == null ? mm(short) : `${mm(short)}–${mm(long)}`
  }
  const angleText = (r: MatrixRow, j: number) => {
    const long = r.long?.angle_deg[j]
    return `${degrees(r.angle_deg[j])}${long == null ? '' : ` – ${degrees(long)}`}`
  }
  /** A zoom is worst where its circle is: both ends are told. */
  const verdict = (r: MatrixRow, j: number) => {
    const [a, b] = [r.verdict[j] ?? 'unknown', r.long?.verdict[j]]
    return b && b !== a ? ([a, b] as const) : ([a] as const)
  }
  /** Room for the widest cell: a zoom has two figures. */
  const headPx = $derived(matrix.rows.some((r) => r.long) ? 118 : 86)
  const bodies = $derived(
    matrix.columns.reduce<{ name: string; count: number }[]>((list, c) => {
      const last = list.at(-1)
      if (last?.name === c.body) last.count++
      else list.push({ name: c.body, count: 1 })
      return list
    }, []),
  )
</script>

<p class="told" aria-live="polite">
  {#if row && column && at}
    {@const j = at.column}
    {@const via = row.via[j]}
    {@const way = via == null ? undefined : row.ways[via]}
    <strong>{row.name}</strong> in <strong>{column.name}</strong> of {column.body}:
    {#if row.verdict[j] === 'impossible'}
      <span class="impossible">does not mount. {Object.values(row.why_not)[0] ?? ''}</span>
    {:else}
      {#if row.effective_mm[j] != null}<span class="accent figure">{cellText(row, j)} mm</span> by {by},{:else}a
        fisheye has no effective focal length;{/if}
      <span class="figure">{angleText(row, j)}</span> ({row.view_class[j]}), optical
      <span class="figure">{mm(row.focal_mm[j])} mm</span>{way?.adapter_ids.length
        ? ` with ${way.name}`
        : ''};
      {#each verdict(row, j) as v, i (i)}<span class={v}
          >{row.long && verdict(row, j).length > 1 ? (i ? ', long end ' : 'wide end ') : ''}{COVERAGE[v].sign}
          {COVERAGE[v].words}</span
        >{/each}:
      {#if row.circle_mm[j] != null}<span class="figure"
          >circle {mm(row.circle_mm[j])} of {mm(row.needed_mm[j])} mm</span
        >{#if row.dark_share[j]}, {share(row.dark_share[j] ?? 0)} dark ({row.dark_corners[j]?.length === 4
            ? 'all corners'
            : row.dark_corners[j]?.join(', ')}){/if}{:else}circle not stated{/if}.
      <a href={hrefOf(row.lens_id, column.format_id, way?.adapter_ids ?? [])}>To the Bench</a>
    {/if}
  {:else}<span class="soft">Point at a cell, or go there with Tab and the arrow keys, for its figures.</span
    >{/if}
</p>
<div
  class="scroll"
  bind:this={scroller}
  onscroll={lookAround}
  onpointerover={look}
  onfocusin={look}
  {onkeydown}
  role="presentation"
>
  <table>
    <caption class="sr-only">Lenses by recording formats: effective focal length, angle, coverage</caption>
    <thead>
      <tr>
        <td class="corner"></td>
        {#each bodies as { name, count }, i (i)}<th scope="colgroup" colspan={count} class="body">{name}</th
          >{/each}
      </tr>
      <tr>
        <th scope="col" class="corner">Lens</th>
        {#each matrix.columns as c, j (c.format_id)}
          <th
            scope="col"
            data-head
            style:min-width="{headPx}px"
            class:lit={at?.column === j}
            title="{c.mode}{c.also.length ? `; also ${c.also.join(', ')}` : ''}; picture {mm(
              c.picture_mm[0],
            )} × {mm(c.picture_mm[1])} mm"
            ><span class="name">{c.name}</span>{#if c.also.length}<span class="soft">
                +{c.also.length}</span
              >{/if}<br /><span class="soft small"
              >{mm(c.picture_mm[0])} mm{c.highest_fps ? `, ${c.rate_text} fps` : ''}</span
            ></th
          >
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each matrix.rows as r, i (i)}
        {#if i === 0 || matrix.rows[i - 1]?.lens_set_id !== r.lens_set_id}
          <tr class="set-row"
            ><th scope="rowgroup" colspan={matrix.columns.length + 1}><span>{r.set}</span></th></tr
          >
        {/if}
        <tr class:lit={at?.row === i} data-row={i}>
          <th scope="row"
            >{r.name}{#if r.ways.length && r.ways.every((w) => w.magnification !== 1)}<span class="soft">
                ×{r.ways[0]?.magnification.toFixed(2)}</span
              >{/if}</th
          >
          {#if i >= from && i < to}
            {#if left > 0}<td colspan={left}></td>{/if}
            {#each matrix.columns.slice(left, right) as c, n (c.format_id)}
              {@const j = left + n}
              <td data-r={i} data-c={j} tabindex={i === from && j === left ? 0 : -1} class={verdict(r, j)[0]}
                >{#if r.verdict[j] === 'impossible'}–{:else}<span class="eff">{cellText(r, j) || 'fish'}</span
                  ><span class="sign"
                    >{verdict(r, j)
                      .map((v) => COVERAGE[v].sign)
                      .join('')}</span
                  ><br /><span class="deg">{angleText(r, j)}</span>{/if}</td
              >
            {/each}
            {#if right < matrix.columns.length}<td colspan={matrix.columns.length - right}></td>{/if}
          {:else}<td colspan={matrix.columns.length} style:height="{rowPx}px"></td>{/if}
        </tr>
      {:else}
        <tr><td class="soft">No lens to show: choose a lens set, or enter one.</td></tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .told {
    min-height: 42px;
    padding: 3px 10px;
    background: var(--cell);
    font-size: 14px;
  }
  strong {
    font-weight: 500;
  }
  a {
    color: var(--light);
    text-decoration: underline;
  }
  .scroll {
    overflow: auto;
    max-height: calc(100vh - 230px);
    min-height: 300px;
    border: 1px solid var(--line);
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
    font-size: 13px;
  }
  th {
    font-weight: 400;
    text-align: left;
  }
  thead th,
  thead td {
    position: sticky;
    top: 0;
    z-index: 2;
    padding: 2px 6px;
    background: var(--panel);
    vertical-align: bottom;
  }
  thead tr:nth-child(2) th {
    top: 22px;
    border-bottom: 1px solid var(--line-strong);
  }
  thead th.body {
    border-left: 1px solid var(--line-strong);
    color: var(--accent);
    height: 22px;
    white-space: nowrap;
  }
  .name {
    white-space: nowrap;
  }
  .small {
    font-size: 11.5px;
    white-space: nowrap;
  }
  .corner,
  tbody th[scope='row'],
  .set-row th span {
    position: sticky;
    left: 0;
  }
  thead .corner {
    z-index: 3;
  }
  tbody th[scope='row'] {
    z-index: 1;
    padding: 2px 10px 2px 6px;
    background: var(--panel);
    white-space: nowrap;
    border-bottom: 1px solid var(--line);
  }
  .set-row th {
    padding: 5px 6px 2px;
    color: var(--accent);
    background: var(--ground);
  }
  tbody td {
    padding: 1px 7px;
    border-bottom: 1px solid var(--line);
    border-left: 1px solid var(--line);
    line-height: 1.22;
    white-space: nowrap;
    font-family: 'IBM Plex Mono', monospace;
  }
  .eff {
    font-size: 13px;
  }
  .deg {
    font-size: 11px;
    color: var(--ink-soft);
  }
  .sign {
    margin-left: 5px;
  }
  td.short {
    background: repeating-linear-gradient(
      45deg,
      transparent 0 5px,
      color-mix(in srgb, var(--bad) 16%, transparent) 5px 7px
    );
  }
  .covers .sign,
  span.covers {
    color: var(--ok);
  }
  .marginal .sign,
  span.marginal,
  .unknown .sign,
  span.unknown {
    color: var(--warn);
  }
  .short .sign,
  span.short,
  span.impossible {
    color: var(--bad);
  }
  td.impossible {
    color: var(--ink-soft);
    text-align: center;
  }
  tr.lit > th,
  th.lit {
    background: var(--cell-strong) !important;
  }
  td:focus-visible {
    outline-offset: -2px;
  }
</style>
