<script lang="ts">
  import { COLUMNS, shownColumns } from '../../lib/columns'
  import { rate } from '../../lib/format'
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
  const classes = $derived([...new Set(view.rows.map((row) => row.format_class))])
  const count = $derived(view.rows.filter((row) => row.shown).length)
  const shown = $derived(shownColumns(bench.columns).map((c) => c.key))
  let choosing = $state(false)
  const RATES = [24, 25, 30, 48, 50, 60, 72, 96, 100, 120, 150, 180, 200, 240, 300, 360, 400]

  function toggleClass(name: string) {
    const now = ladder.classes ?? []
    filter({ classes: now.includes(name) ? now.filter((c) => c !== name) : [...now, name] })
  }

  function toggleColumn(key: string, on: boolean) {
    const columns = COLUMNS.map((c) => c.key).filter((k) => (k === key ? on : shown.includes(k)))
    onchange({ columns })
  }
</script>

<div class="filters" role="toolbar" aria-label="Which recording formats are shown">
  <span role="group" aria-label="Bodies">
    <button class="knob" aria-pressed={ladder.scope === 'body'} onclick={() => filter({ scope: 'body' })}
      >{bodyName}</button
    ><button class="knob" aria-pressed={ladder.scope === 'all'} onclick={() => filter({ scope: 'all' })}
      >All bodies</button
    >
  </span>
  <span role="group" aria-label="Classes">
    {#each classes as name (name)}
      <button
        class="knob"
        aria-pressed={(ladder.classes ?? []).includes(name)}
        onclick={() => toggleClass(name)}>{name}</button
      >
    {/each}
  </span>
  <span role="group" aria-label="Conditions">
    <button class="knob" aria-pressed={ladder.covers} onclick={() => filter({ covers: !ladder.covers })}
      >Covered</button
    ><button
      class="knob"
      aria-pressed={ladder.oversampled}
      onclick={() => filter({ oversampled: !ladder.oversampled })}>Oversampled</button
    >
    <label
      ><span class="soft">at least</span>
      <select
        class="set figure"
        aria-label="At least this many frames a second"
        value={String(ladder.least_fps ?? '')}
        onchange={(event) => filter({ least_fps: Number(event.currentTarget.value) || null })}
      >
        <option value="">any rate</option>
        {#each [...new Set([...RATES, ladder.least_fps ?? 24])].toSorted((a, b) => a - b) as fps (fps)}
          <option value={String(fps)}>{rate(fps)} fps</option>
        {/each}
      </select></label
    >
  </span>
  <span class="soft count" role="status">{count} of {view.rows.length} recording formats</span>
  <button
    class="knob"
    aria-expanded={choosing}
    aria-controls="column-choice"
    onclick={() => (choosing = !choosing)}>Columns</button
  >
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
  span[role='group'] {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0.25rem;
    align-items: center;
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
