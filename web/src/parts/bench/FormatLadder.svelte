<script lang="ts">
  import { shownColumns } from '../../lib/columns'
  import { depthScale, hold, sorted } from '../../lib/ladder'
  import { narrow } from '../../lib/narrow.svelte'
  import type { BenchState, BenchView, FormatPlace, LadderRow as Row } from '../../lib/types'
  import LadderRow from './LadderRow.svelte'

  interface Props {
    state: BenchState
    view: BenchView
    places: Map<number, FormatPlace>
    /** Ids of the formats whose derivation is open. */
    open: number[]
    /** While something is dragged, only the rows in sight follow and are laid out; the rest catch up when it ends. */
    dragging: boolean
    onsight: (formatIds: number[]) => void
    onchange: (part: Partial<BenchState>, kind?: string) => void
    ontoggleopen: (formatId: number) => void
  }
  let { state: bench, view, places, open, dragging, onsight, onchange, ontoggleopen }: Props = $props()

  const columns = $derived(shownColumns(bench.columns))
  const rows = $derived(sorted(view.rows, places, bench.sort, bench.descending))
  const scale = $derived(depthScale(rows))
  let table: HTMLTableElement
  let last: Row[] = []
  // What is handed over is new with each answer; whether it is dragged is not, and is measured once.
  const moving = $derived(dragging)
  const held = $derived(moving ? measured() : null)
  const drawn = $derived.by(() => (last = held ? hold(rows, last, held.inSight) : rows))
  $effect(() => {
    if (held) onsight([...held.inSight])
  })

  /** The rows in sight, and the measures that the table keeps while the others are not laid out. */
  function measured() {
    const seen = [...table.querySelectorAll<HTMLElement>('tr[data-format]')].filter((row) => {
      const { top, bottom } = row.getBoundingClientRect()
      return bottom > 0 && top < innerHeight
    })
    const heads = [...table.querySelectorAll('th[scope=col]')]
    return {
      inSight: new Set(seen.map((row) => Number(row.dataset.format))),
      high: `${table.offsetHeight}px`,
      wide: heads.map((head) => `${head.getBoundingClientRect().width}px`),
    }
  }

  function sort(key: string) {
    if (bench.sort !== key) onchange({ sort: key, descending: false })
    else if (!bench.descending) onchange({ descending: true })
    else onchange({ sort: null, descending: false })
  }

  function pin(id: number) {
    const pinned = bench.pinned.includes(id)
      ? bench.pinned.filter((p) => p !== id)
      : [...bench.pinned, id].slice(-4)
    onchange({ pinned })
  }

  /** Up and down choose the neighbouring row, Home and End the first and last. */
  function onkeydown(event: KeyboardEvent) {
    if (!(event.target instanceof HTMLElement) || event.target.tagName !== 'TR') return
    const at = rows.findIndex((row) => row.format_id === bench.format_id)
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key]
    if (event.key === 'Enter') ontoggleopen(bench.format_id)
    else if (event.key === 'p') pin(bench.format_id)
    else if (to === undefined) return
    else choose(rows[Math.max(0, Math.min(to, rows.length - 1))]?.format_id)
    event.preventDefault()
    event.stopPropagation()
  }

  function choose(id: number | undefined) {
    if (id === undefined) return
    onchange({ format_id: id }, 'choose')
    table.querySelector<HTMLElement>(`tr[data-format="${id}"]`)?.focus()
  }
</script>

<div class="wide" style:min-height={held?.high}>
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <table class="ladder" class:narrow={narrow.current} bind:this={table} {onkeydown}>
    <caption class="sr-only">Every recording format with this lens at this distance</caption>
    <thead>
      {#if narrow.current}<tr class="sr-only"
          ><th scope="col">Pin</th><th scope="col">Recording format</th><th scope="col"
            >Near and far, and what to watch out for</th
          ></tr
        >{:else}<tr>
          <th scope="col" class="pin" style:width={held?.wide[0]}><span class="sr-only">Pin</span></th>
          <th scope="col" class="name" style:width={held?.wide[1]}
            ><span class="print-only">Recording format</span><button
              class="no-print"
              onclick={() => sort('name')}
              >Recording format{bench.sort === 'name' ? (bench.descending ? ' ▾' : ' ▴') : ''}</button
            ></th
          >
          {#each columns as column, i (column.key)}
            <th
              scope="col"
              style:width={held?.wide[i + 2]}
              class:number={column.figure}
              title={column.about}
              aria-sort={bench.sort === column.key
                ? bench.descending
                  ? 'descending'
                  : 'ascending'
                : undefined}
              ><!-- A button is not repeated on the pages that follow. --><span class="print-only"
                >{column.title}{column.metres && bench.unit === 'm' ? ', m' : ''}</span
              ><button class="no-print" onclick={() => sort(column.key)}
                >{column.title}{column.metres && bench.unit === 'm' ? ', m' : ''}{bench.sort === column.key
                  ? bench.descending
                    ? ' ▾'
                    : ' ▴'
                  : ''}</button
              ></th
            >
          {/each}
          <th scope="col" style:width={held?.wide.at(-1)}>Watch out</th>
        </tr>{/if}
    </thead>
    <tbody>
      {#each drawn as row (row.format_id)}
        {@const place = places.get(row.format_id)}
        {#if place}
          <LadderRow
            {row}
            {place}
            {columns}
            {scale}
            unit={bench.unit}
            chosen={row.format_id === bench.format_id}
            away={held !== null && !held.inSight.has(row.format_id)}
            pinned={bench.pinned.includes(row.format_id)}
            derivation={open.includes(row.format_id) ? (view.derivations[String(row.format_id)] ?? []) : null}
            onchoose={() => onchange({ format_id: row.format_id })}
            onpin={() => pin(row.format_id)}
            onderive={() => ontoggleopen(row.format_id)}
          />
        {/if}
      {:else}
        <tr
          ><td colspan={columns.length + 3} class="empty"
            >No recording format passes these filters. Loosen one of them.</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
</div>
