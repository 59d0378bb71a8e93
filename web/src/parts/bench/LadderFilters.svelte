<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import Segments from '../controls/Segments.svelte'
  import Toggles from '../controls/Toggles.svelte'
  import { figureOptions, wordOptions } from '../../lib/options'
  import { COLUMNS, shownColumns } from '../../lib/columns'
  import { rate } from '../../lib/format'
  import { narrow } from '../../lib/narrow.svelte'
  import type { BenchState, BenchView } from '../../lib/types'

  interface Props {
    state: BenchState
    view: BenchView
    bodyName: string
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { state: bench, view, bodyName, onchange }: Props = $props()

  const ladder = $derived(bench.ladder)
  const filter = (part: Partial<BenchState['ladder']>) => onchange({ ladder: { ...ladder, ...part } })
  const classes = $derived([...new Set(view.rows.flatMap((row) => row.format_class ?? []))])
  const count = $derived(view.rows.filter((row) => row.shown).length)
  const shown = $derived(shownColumns(bench.columns).map((c) => c.key))
  let choosing = $state(false)
  /** On a telephone what filters the rows stands behind a button. */
  let filtering = $state(false)
  const sortable = $derived([
    { value: null, label: 'as in the package' },
    { value: 'name', label: 'name' },
    ...COLUMNS.filter((c) => shown.includes(c.key)).map((c) => ({ value: c.key, label: c.title })),
  ])
  const RATES = [24, 25, 30, 48, 50, 60, 72, 96, 100, 120, 150, 180, 200, 240, 300, 360, 400]

  const CONDITIONS = [
    { value: 'mounts', label: 'Mounts' },
    { value: 'covers', label: 'Covered' },
    { value: 'oversampled', label: 'Oversampled' },
  ] as const

  function toggleColumn(key: string, on: boolean) {
    const columns = COLUMNS.map((c) => c.key).filter((k) => (k === key ? on : shown.includes(k)))
    onchange({ columns })
  }
</script>

{#if narrow.current}
  <div class="filters">
    <button
      class="knob"
      aria-expanded={filtering}
      aria-controls="ladder-filters"
      onclick={() => (filtering = !filtering)}>Filters</button
    >
    <label class="item"
      ><span class="soft">by</span>
      <Choice
        label="Sorted by"
        options={sortable}
        value={bench.sort}
        onchange={(sort) => onchange({ sort, descending: false })}
      /></label
    >
    <span class="soft count" role="status">{count} of {view.rows.length}</span>
  </div>
{/if}
<div
  class="filters"
  id="ladder-filters"
  role="toolbar"
  aria-label="Which recording formats are shown"
  hidden={narrow.current && !filtering}
>
  <Segments
    label="Bodies"
    options={[
      { value: 'body', label: bodyName },
      { value: 'all', label: 'All bodies' },
    ]}
    value={ladder.scope}
    onchange={(scope) => filter({ scope })}
  />
  <Toggles
    label="Classes"
    options={wordOptions(classes)}
    value={ladder.classes ?? []}
    onchange={(chosen) => filter({ classes: chosen })}
  />
  <span class="item">
    <Toggles
      label="Conditions"
      options={CONDITIONS}
      value={CONDITIONS.map((c) => c.value).filter((key) => ladder[key] ?? key === 'mounts')}
      onchange={(on) =>
        filter({
          mounts: on.includes('mounts'),
          covers: on.includes('covers'),
          oversampled: on.includes('oversampled'),
        })}
    />
    <label
      ><span class="soft">at least</span>
      <Choice
        label="At least this many frames a second"
        figure
        options={[
          { value: null, label: 'any rate' },
          ...figureOptions(RATES, ladder.least_fps, (fps) => `${rate(fps)} fps`),
        ]}
        value={ladder.least_fps ?? null}
        onchange={(least_fps) => filter({ least_fps })}
      /></label
    >
  </span>
  {#if !narrow.current}
    <span class="soft count" role="status">{count} of {view.rows.length} recording formats</span>
    <button
      class="knob"
      aria-expanded={choosing}
      aria-controls="column-choice"
      onclick={() => (choosing = !choosing)}>Columns</button
    >
  {/if}
  {#if choosing}
    <div class="choice" id="column-choice" role="group" aria-label="Columns that are shown">
      {#each COLUMNS as column (column.key)}
        <label title={column.about}
          ><input
            type="checkbox"
            checked={shown.includes(column.key)}
            onchange={(event) => toggleColumn(column.key, event.currentTarget.checked)}
          />
          {column.title}</label
        >
      {/each}
      <button class="knob" disabled={bench.columns === null} onclick={() => onchange({ columns: null })}
        >As at first</button
      >
    </div>
  {/if}
</div>

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.9rem;
    font-size: 14px;
  }
  .filters[hidden] {
    display: none;
  }
  .count {
    margin-left: auto;
  }
  .choice {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.1rem;
    width: 100%;
    padding: 0.3rem 0.6rem;
    background: var(--cell-strong);
  }
  .choice label {
    display: inline-flex;
    gap: 0.35rem;
    align-items: center;
  }
  input {
    accent-color: var(--accent);
  }
</style>
