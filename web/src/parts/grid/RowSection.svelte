<script lang="ts" generics="R extends Row">
  import type { Snippet } from 'svelte'
  import type { Faults } from '../../lib/faults'
  import { parsePath, setAt } from '../../lib/paths'
  import { chosenOf, deleted, freeName, inserted, newKey, shifted, type RowEdit } from '../../lib/rows'
  import type { Column, Row } from './columns'
  import Grid from './Grid.svelte'
  import { rowKeys } from './rowKeys'
  import RowTools from './RowTools.svelte'

  interface Props {
    heading: string
    /** What one row is, such as "scan mode". */
    what: string
    rows: readonly R[]
    columns: readonly Column<R>[]
    path: string
    /** The document that the rows are a list of. */
    editor: {
      readonly document: unknown
      set: (path: string, value: unknown) => void
      change: (document: never) => void
      readonly faults: Faults
    }
    chosen: string | undefined
    make: (rows: readonly R[], like: R | undefined) => R
    copy?: (row: R, rows: readonly R[]) => R
    /** What goes besides with a row that is deleted. */
    without?: (document: never, key: string) => unknown
    origin?: (key: string, field: string) => string | undefined
    onfigure?: (key: string, field: string, label: string) => void
    /** What else stands beside the heading. */
    beside?: Snippet
  }
  let {
    heading,
    what,
    rows,
    columns,
    path,
    editor,
    chosen = $bindable(),
    make,
    copy = (row, all) => ({ ...row, key: newKey(), name: freeName(row.name, all) }),
    without,
    origin,
    onfigure,
    beside,
  }: Props = $props()

  const row = $derived(chosenOf(rows, chosen))
  const index = $derived(row ? rows.indexOf(row) : -1)

  function apply(edit: RowEdit<R>, gone?: string) {
    const changed = setAt(editor.document, parsePath(path), edit.rows)
    editor.change((gone && without ? without(changed as never, gone) : changed) as never)
    chosen = edit.chosen
  }
  const acts = {
    add: () => apply(inserted(rows, make(rows, row), row?.key)),
    duplicate: () => row && apply(inserted(rows, copy(row, rows), row.key)),
    move: (by: number) => apply(shifted(rows, row?.key, by)),
    delete: () => row?.key && apply(deleted(rows, row.key), row.key),
  }
</script>

<div class="bar">
  <h2>{heading} <span class="soft">{rows.length}</span></h2>
  {@render beside?.()}
  <RowTools
    {what}
    chosen={row !== undefined}
    up={index > 0}
    down={index >= 0 && index < rows.length - 1}
    onadd={acts.add}
    onduplicate={acts.duplicate}
    onmove={acts.move}
    ondelete={acts.delete}
  />
</div>
<Grid
  label={heading}
  {columns}
  {rows}
  {path}
  chosen={row?.key}
  empty="No {what} yet: add the first."
  faults={editor.faults}
  {...origin && { origin }}
  make={(all) => make(all, all.at(-1))}
  onset={(at, value) => editor.set(at, value)}
  onchoose={(key) => (chosen = key)}
  {onfigure}
  onkeydown={(event) => rowKeys(event, acts)}
/>

<style>
  .bar > :global(.tools) {
    margin-left: auto;
  }
</style>
