<script lang="ts">
  import { tick } from 'svelte'
  import { mm } from '../../lib/format'
  import { printing } from '../../lib/printing.svelte'
  import type { KitMatrix } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'
  import { angleText, cellText, verdictsOf } from './matrix'
  import MatrixTold from './MatrixTold.svelte'
  import PrintedMatrix from './PrintedMatrix.svelte'

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
    if (!printing.current) lookAround()
  })
  /** The cell under the pointer or the keyboard: row and column. */
  let at = $state<{ row: number; column: number } | null>(null)

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

{#if printing.current}
  <PrintedMatrix {matrix} />
{/if}
<div class="no-print"><MatrixTold {matrix} {at} {hrefOf} /></div>
<div
  class="matrix no-print"
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
              >{mm(c.picture_mm[0])} mm{c.highest_fps ? `, ${c.rate_text} fps` : ''}{#if c.faster}<br
                />{c.faster}{/if}{#each c.needs as need (need)}<br />{need}{/each}</span
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
              >{/if}{#if r.stands_in['image_circle_mm']}<br /><span class="soft small">circle assumed</span
              >{/if}</th
          >
          {#if i >= from && i < to}
            {#if left > 0}<td colspan={left}></td>{/if}
            {#each matrix.columns.slice(left, right) as c, n (c.format_id)}
              {@const j = left + n}
              <td
                data-r={i}
                data-c={j}
                tabindex={i === from && j === left ? 0 : -1}
                class={verdictsOf(r, j)[0]}
                >{#if r.verdict[j] === 'impossible'}–{:else}<span class="eff">{cellText(r, j) || 'fish'}</span
                  ><span class="sign"
                    >{verdictsOf(r, j)
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
