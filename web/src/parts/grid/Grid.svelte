<script lang="ts" generics="R extends Row">
  import CellEditor from './CellEditor.svelte'
  import { entered, pathOf, textOf, valueOf, type Column, type Row } from './columns'
  import { GridState, type GridProps } from './grid.svelte'

  const props: GridProps<R> = $props()
  // svelte-ignore state_referenced_locally (the props are read where they are used)
  const grid = new GridState(props)
  const id = $props.id()

  const range = $derived(grid.view.range)
  const drawn = $derived(props.rows.slice(range.from, range.to))
  const stop = $derived(grid.at.row >= range.from && grid.at.row < range.to ? grid.at.row : range.from)
  const row = $derived(props.rows[grid.at.row])
  const column = $derived(grid.active ? props.columns[grid.at.column] : undefined)
  /** Sentences of the chosen row that their cells cut. */
  const sentences = $derived(
    row ? props.columns.filter((c) => c.long).flatMap((c) => textOf(c, row) || []) : [],
  )
  const { wrong } = $derived(grid)

  // What lies above may grow and move the rows without any scrolling: look again whenever the page changes its height.
  $effect(() => {
    const observer = new ResizeObserver(() => grid.view.look())
    observer.observe(document.body)
    return () => observer.disconnect()
  })

  function place(target: EventTarget | null) {
    const cell = target instanceof Element ? target.closest<HTMLElement>('td[data-column]') : null
    const key = cell?.closest('tr')?.dataset['key']
    if (!cell) return null
    return {
      row: props.rows.findIndex((r) => r.key === key),
      column: props.columns.findIndex((c) => c.key === cell.dataset['column']),
    }
  }

  /** A finger opens what it taps, a mouse what was chosen before; lists open at once. */
  function onclick(event: MouseEvent) {
    const at = place(event.target)
    const hit = at && props.columns[at.column]
    if (!hit || (event.target instanceof Element && event.target.closest('input, select, label'))) return
    const again = grid.active && at.row === grid.at.row && at.column === grid.at.column
    if (event.shiftKey && grid.active) {
      grid.corner = at
      return
    }
    const touched = 'pointerType' in event && event.pointerType === 'touch'
    if (grid.writing && again) return
    void grid.go(at).then(() => {
      if (hit.kind !== 'check' && (again || touched || hit.kind.startsWith('choice'))) grid.write(null)
    })
  }

  function isChosen(i: number, j: number) {
    const { top, bottom, left, right } = grid.block
    return grid.corner !== null && i >= top && i <= bottom && j >= left && j <= right
  }
  const spoken = (c: Column<R>, r: R) => `${grid.label(c, r)}: ${textOf(c, r) || c.empty || 'empty'}`
</script>

<svelte:window onscroll={() => grid.view.look()} onresize={() => grid.view.look()} />
<p class="grid-told" id="{id}-told">
  {#if wrong}<strong>{wrong.label}</strong><span class="fault" role="alert">{wrong.rule}</span>
  {:else if column && row}<strong>{grid.label(column, row)}</strong>{#if column.gloss}<span
        >{column.gloss}</span
      >{/if}{/if}
  {#each sentences as text (text)}<span class="note">{text}</span>{/each}
  {#if grid.said}<span>{grid.said}</span>{/if}
</p>
<span class="sr-only" role="log">{grid.said}</span>
<div class="grid">
  <table
    role="grid"
    class:narrow={props.columns.length < 8}
    aria-label={props.label}
    aria-rowcount={props.rows.length + 1}
    aria-colcount={props.columns.length}
    aria-multiselectable="true"
    onkeydown={(event) => grid.keydown(event)}
    oncopy={(event) => grid.copy(event)}
    onpaste={(event) => grid.paste(event)}
    {onclick}
  >
    <thead>
      <tr aria-rowindex="1">
        {#each props.columns as c (c.key)}
          <th
            scope="col"
            class:number={c.kind === 'number' || c.kind === 'weight'}
            class:computed={c.kind === 'computed'}
            class:right={c.right}
            title={c.gloss}><span aria-hidden="true">{c.title}</span><span class="sr-only">{c.name}</span></th
          >
        {/each}
      </tr>
    </thead>
    <tbody bind:this={grid.body}>
      {#if range.from > 0}<tr aria-hidden="true" style:height="{range.from * grid.view.rowPx}px"></tr>{/if}
      {#each drawn as r, n (r.key)}
        {@const i = range.from + n}
        <tr data-key={r.key} aria-rowindex={i + 2} class:chosen={r.key === props.chosen}>
          {#each props.columns as c, j (c.key)}
            {@const fault = grid.fault(c, r, i)}
            {@const here = i === grid.at.row && j === grid.at.column}
            {@const mark =
              c.kind === 'computed'
                ? undefined
                : props.origin?.(r.key ?? '', pathOf(c, r).replace(/\[\d\]$/, ''))}
            <td
              role={j === 0 ? 'rowheader' : 'gridcell'}
              data-column={c.key}
              data-title={c.title}
              tabindex={i === stop && j === grid.at.column ? 0 : -1}
              aria-label={spoken(c, r)}
              aria-colindex={j + 1}
              aria-readonly={!entered(c, r)}
              aria-invalid={fault !== undefined}
              aria-selected={isChosen(i, j) || (here && grid.active !== null)}
              aria-describedby={here && (fault !== undefined || c.long) ? `${id}-told` : undefined}
              class:number={c.kind === 'number' || c.kind === 'weight' || c.right}
              class:figure={c.kind === 'number' || c.kind === 'weight' || c.kind === 'rates' || c.right}
              class:computed={c.kind === 'computed'}
              class:check={c.long}
              class:bad={c.bad?.(r)}
              class:first={c.first}
              >{#if here && grid.writing && r.key === grid.active?.key}<CellEditor
                  column={c}
                  row={r}
                  label={grid.label(c, r)}
                  start={grid.writing.start}
                  ondone={(text, way) => void grid.done(text, way)}
                  ondrop={() => void grid.go(grid.at)}
                />{:else if c.drawn}{@render c.drawn(r)}{:else if c.kind === 'check'}<label class="tick"
                  ><input
                    type="checkbox"
                    tabindex="-1"
                    aria-label={grid.label(c, r)}
                    checked={valueOf(c, r) === true}
                    onchange={(event) => {
                      grid.choose({ row: i, column: j })
                      grid.set({ row: i, column: j }, event.currentTarget.checked)
                    }}
                  /></label
                >{:else}{textOf(c, r)}{#if c.empty && textOf(c, r) === ''}<span class="soft">{c.empty}</span
                  >{/if}{/if}{#if mark}<abbr title="{mark}: see where it comes from">{mark.slice(0, 1)}</abbr
                >{/if}</td
            >
          {/each}
        </tr>
      {:else}
        <tr><td colspan={props.columns.length} class="soft empty">{props.empty}</td></tr>
      {/each}
      {#if range.to < props.rows.length}<tr
          aria-hidden="true"
          style:height="{(props.rows.length - range.to) * grid.view.rowPx}px"
        ></tr>{/if}
    </tbody>
  </table>
</div>
