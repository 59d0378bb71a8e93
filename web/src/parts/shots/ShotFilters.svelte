<script lang="ts">
  import { VERDICTS, type ShotFilter } from '../../lib/shotList'
  import type { ListedShots, Shot } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import Segments from '../controls/Segments.svelte'

  interface Props {
    /** All shots, whether they are shown or not. */
    shots: readonly Shot[]
    sheet: ListedShots | null
    filter: ShotFilter
    onchange: (filter: ShotFilter) => void
  }
  let { shots, sheet, filter, onchange }: Props = $props()

  /** More than so many stand in a list. */
  const MOST_SEGMENTS = 9
  const FILTERS = [
    { key: 'day', label: 'Day', all: 'All days' },
    { key: 'unit', label: 'Camera', all: 'all' },
    { key: 'scene', label: 'Scene', all: 'all scenes' },
  ] as const
  const offered = $derived(
    FILTERS.map((row) => {
      const found = [...new Set(shots.map((shot) => shot[row.key].trim()).filter(Boolean))]
      const sorted = found.toSorted((a, b) => a.localeCompare(b, 'en', { numeric: true }))
      const options = [{ value: '', label: row.all }, ...sorted.map((value) => ({ value, label: value }))]
      // Segments go by values without spaces.
      return {
        ...row,
        options,
        list: options.length > MOST_SEGMENTS || sorted.some((value) => /\s/.test(value)),
      }
    }),
  )
  const VERDICT_NAMES = ['does', 'depends', 'nearly', 'cannot', 'open'] as const
</script>

{#each offered as { key, label, options, list } (key)}
  {#if options.length > 2}
    {#if list}
      <Choice
        {label}
        {options}
        value={filter[key]}
        onchange={(value) => onchange({ ...filter, [key]: value })}
      />
    {:else}
      <Segments
        {label}
        {options}
        value={filter[key]}
        onchange={(value) => onchange({ ...filter, [key]: value })}
      />
    {/if}
  {/if}
{/each}
{#if sheet}
  <span class="counts">
    {#each VERDICT_NAMES.filter((name) => name !== 'depends' || sheet.depends || filter.verdict === name) as verdict (verdict)}
      <button
        class="knob {VERDICTS[verdict].look}"
        aria-pressed={filter.verdict === verdict}
        onclick={() => onchange({ ...filter, verdict: filter.verdict === verdict ? '' : verdict })}
        >{VERDICTS[verdict].sign} {sheet[verdict]} {VERDICTS[verdict].words}</button
      >
    {/each}
  </span>
{/if}

<style>
  .counts {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 4px;
    margin-left: auto;
  }
</style>
