<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import type { Snippet } from 'svelte'
  import type { ComparisonKept } from '../../lib/types'

  interface Props {
    rows: readonly ComparisonKept[]
    removed: readonly ComparisonKept[]
    /** The one that is open, and its name as it is being typed. */
    chosen: number | null
    name: string | undefined
    /** Whether the Bench is there to begin from. */
    ready: boolean
    onshow: (id: number) => void
    onadd: () => void
    oncopy: () => void
    onremove: (row: ComparisonKept, removed: boolean) => void
    /** Whether it is saved. */
    children: Snippet
  }
  let { rows, removed, chosen, name, ready, onshow, onadd, oncopy, onremove, children }: Props = $props()
  const current = $derived(rows.find((row) => row.id === chosen))
</script>

<div class="bar no-print">
  <label
    ><span class="soft">Comparison</span>
    <Choice
      label="Comparison"
      options={rows.map((row) => ({
        value: row.id,
        label: row.id === chosen ? (name ?? row.document.name) : row.document.name,
      }))}
      value={chosen}
      onchange={onshow}
    /></label
  >
  <button class="knob" disabled={!ready} onclick={onadd}>New, from the Bench</button>
  <button class="knob" disabled={name === undefined} onclick={oncopy}>Copy</button>
  <button class="knob" disabled={!current} onclick={() => current && onremove(current, true)}>Remove</button>
  <button class="knob" disabled={name === undefined} onclick={() => print()}>Print</button>
  {#each removed as row (row.id)}
    <button class="knob soft" onclick={() => onremove(row, false)}>Bring {row.document.name} back</button>
  {/each}
  {@render children()}
</div>
