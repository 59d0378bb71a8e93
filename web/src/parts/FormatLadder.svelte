<script lang="ts">
  import { shownColumns, watchOut } from '../lib/columns'
  import { depthScale, hold, sorted } from '../lib/ladder'
  import type { BenchState, BenchView, FormatPlace, LadderRow } from '../lib/types'
  import DerivationTable from './DerivationTable.svelte'
  import RateText from './RateText.svelte'

  interface Props {
    state: BenchState
    view: BenchView
    places: Map<number, FormatPlace>
    /** Ids of the formats whose derivation is open. */
    open: number[]
    /** While something is dragged, only the rows in sight follow; the rest catch up when it ends. */
    dragging: boolean
    onchange: (part: Partial<BenchState>, kind?: string) => void
    ontoggleopen: (formatId: number) => void
  }
  let { state: bench, view, places, open, dragging, onchange, ontoggleopen }: Props = $props()

  const columns = $derived(shownColumns(bench.columns))
  const rows = $derived(sorted(view.rows, places, bench.sort, bench.descending))
  const scale = $derived(depthScale(rows))
  let table: HTMLTableElement
  let last: LadderRow[] = []
  const inSight = $derived(dragging ? idsInSight() : null)
  const drawn = $derived.by(() => (last = inSight ? hold(rows, last, inSight) : rows))

  function idsInSight(): Set<number> {
    const seen = [...table.querySelectorAll<HTMLElement>('tr[data-format]')].filter((row) => {
      const { top, bottom } = row.getBoundingClientRect()
      return bottom > 0 && top < innerHeight
    })
    return new Set(seen.map((row) => Number(row.dataset.format)))
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

<div class="scroll">
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <table bind:this={table} {onkeydown}>
    <caption class="sr-only">Every recording format with this lens at this distance</caption>
    <thead>
      <tr>
        <th scope="col" class="pin"><span class="sr-only">Pin</span></th>
        <th scope="col" class="name"
          ><button onclick={() => sort('name')}
            >Recording format{bench.sort === 'name' ? (bench.descending ? ' ▾' : ' ▴') : ''}</button
          ></th
        >
        {#each columns as column (column.key)}
          <th
            scope="col"
            class:number={column.figure}
            title={column.about}
            aria-sort={bench.sort === column.key
              ? bench.descending
                ? 'descending'
                : 'ascending'
              : undefined}
            ><button onclick={() => sort(column.key)}
              >{column.title}{column.metres && bench.unit === 'm' ? ', m' : ''}{bench.sort === column.key
                ? bench.descending
                  ? ' ▾'
                  : ' ▴'
                : ''}</button
            ></th
          >
        {/each}
        <th scope="col">Watch out</th>
      </tr>
    </thead>
    <tbody>
      {#each drawn as row (row.format_id)}
        {@const place = places.get(row.format_id)}
        {#if place}
          {@const id = row.format_id}
          {@const chosen = id === bench.format_id}
          {@const pinned = bench.pinned.includes(id)}
          {@const notes = watchOut(row)}
          <tr
            data-format={id}
            class:chosen
            aria-selected={chosen}
            tabindex={chosen ? 0 : -1}
            onclick={() => onchange({ format_id: id })}
          >
            <td class="pin">
              <button
                class:pinned
                aria-pressed={pinned}
                aria-label="Pin {place.format.name}"
                title={pinned ? 'Pinned: drawn in the plan view' : 'Pin: draw it in the plan view'}
                onclick={(event) => {
                  event.stopPropagation()
                  pin(id)
                }}>{pinned ? '◆' : '◇'}</button
              >
            </td>
            <th scope="row" class="name">
              <button
                class="derive"
                aria-expanded={open.includes(id)}
                aria-label="How {place.format.name} is computed"
                title="How it is computed"
                onclick={(event) => {
                  event.stopPropagation()
                  ontoggleopen(id)
                }}>{open.includes(id) ? '▾' : '▸'}</button
              >
              {place.format.name} <span class="soft body">{place.body.name}</span>
            </th>
            {#each columns as column (column.key)}
              {#if column.key === 'depth'}
                <td class="depth">
                  <span class="bar" aria-hidden="true"
                    ><span
                      style:left="{scale.share(row.answer.depth.near_m)}%"
                      style:width="{scale.share(row.answer.depth.far_m) -
                        scale.share(row.answer.depth.near_m)}%"
                    ></span><i style:left="{scale.share(row.answer.subject_distance_m)}%"></i></span
                  ><span class="figure">{column.text(row, place, bench.unit)}</span>
                </td>
              {:else if column.key === 'circle'}
                <td class={row.verdict}>{column.text(row, place, bench.unit)}</td>
              {:else if column.key === 'rate'}
                <td class="figure rate"><RateText text={column.text(row, place, bench.unit)} /></td>
              {:else}
                <td class:figure={column.figure} class:number={column.figure}
                  >{column.text(row, place, bench.unit)}</td
                >
              {/if}
            {/each}
            <td class="watch" title={notes.map((note) => note.text).join(', ')}
              >{#each notes as note, index (index)}{index ? ', ' : ''}<span class={note.level}
                  >{note.text}</span
                >{/each}</td
            >
          </tr>
          {#if open.includes(id)}
            <tr class="derived">
              <td colspan={columns.length + 3}>
                <DerivationTable steps={view.derivations[String(id)] ?? []} notes={row.answer.notes} />
              </td>
            </tr>
          {/if}
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

<style>
  .scroll {
    overflow-x: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 3px 5px;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
    white-space: nowrap;
  }
  thead th {
    position: sticky;
    top: 0;
    z-index: 2;
    padding-block: 1px;
    background: var(--ground);
    font-size: 13px;
    color: var(--ink-soft);
  }
  thead button {
    min-height: 24px;
    cursor: pointer;
  }
  thead button:hover {
    color: var(--ink);
  }
  .figure {
    font-size: 14px;
  }
  .number {
    text-align: right;
  }
  .pin {
    width: 26px;
    padding-inline: 4px 0;
  }
  .pin button,
  .derive {
    min-width: 24px;
    min-height: 24px;
    color: var(--ink-soft);
    cursor: pointer;
  }
  .pinned {
    color: var(--accent) !important;
  }
  .body {
    font-size: 13px;
    margin-left: 0.3rem;
  }
  tbody tr[data-format] {
    cursor: pointer;
  }
  tbody tr[data-format]:hover > * {
    background: var(--panel);
  }
  tr.chosen > *,
  tbody tr.chosen[data-format]:hover > * {
    background: var(--cell-strong);
  }
  .depth {
    min-width: 130px;
  }
  .rate {
    max-width: 128px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .bar {
    display: inline-block;
    position: relative;
    width: 58px;
    height: 9px;
    margin-right: 7px;
    border-inline: 1px solid var(--line-strong);
  }
  .bar span {
    position: absolute;
    inset-block: 0;
    min-width: 2px;
    background: var(--accent);
    border-radius: 1px;
  }
  .depth .figure {
    display: inline-block;
    min-width: 62px;
    text-align: right;
  }
  .bar i {
    position: absolute;
    inset-block: -2px;
    width: 1px;
    background: var(--ink);
  }
  .watch {
    max-width: 178px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .covers {
    color: var(--ok);
  }
  .marginal,
  .warn {
    color: var(--warn);
  }
  .short,
  .stop {
    color: var(--bad);
  }
  .info,
  .unknown {
    color: var(--ink-soft);
  }
  .derived td {
    padding: 0;
    white-space: normal;
  }
  .empty {
    padding: 1rem;
    color: var(--ink-soft);
  }
  /* Where the ladder is wider than the page, the names stay. */
  @media (max-width: 1100px) {
    .name {
      position: sticky;
      left: 0;
      z-index: 1;
      background: var(--ground);
      /* A border would stay behind when the rest scrolls. */
      box-shadow: inset 0 -1px var(--line);
    }
  }
  @media (pointer: coarse) {
    th,
    td {
      padding-block: 8px;
    }
  }
  @media (max-width: 560px) {
    .body {
      display: none;
    }
  }
</style>
