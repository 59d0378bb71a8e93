<script lang="ts">
  import { distanceWithUnit } from '../../lib/format'
  import type { Problem, Unit } from '../../lib/types'
  import FaultNote from '../fields/FaultNote.svelte'

  interface Props {
    metres: readonly number[]
    unit: Unit
    placeholder: string
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (metres: number[]) => void
  }
  let { metres, unit, placeholder, read, onchange }: Props = $props()
  const id = $props.id()
  let field = $state<HTMLElement>()
  let typed = $state<string | null>(null)
  let fault = $state('')
  const shown = $derived(metres.map((each) => distanceWithUnit(each, unit)).join(', '))

  async function commit() {
    if (typed === null) return
    const found: number[] = []
    // Semicolons part what has decimal commas.
    const parts = typed.split(typed.includes(';') ? ';' : /,\s+|\s*,(?=\s*\S)/).map((part) => part.trim())
    for (const part of parts.filter(Boolean)) {
      const { data, problem } = await read(part, unit)
      if (!data) {
        fault = `${part}: ${problem?.faults[0]?.rule ?? problem?.message ?? 'cannot be read'}`
        return
      }
      found.push(data.metres)
    }
    fault = ''
    typed = null
    onchange([...new Set(found)].toSorted((a, b) => a - b))
  }
</script>

<span class="cell" bind:this={field}>
  <input
    class="set figure"
    aria-label="Distances, one after the other"
    aria-invalid={fault !== ''}
    aria-describedby={fault ? id : undefined}
    autocomplete="off"
    spellcheck="false"
    {placeholder}
    value={typed ?? shown}
    oninput={(event) => (typed = event.currentTarget.value)}
    onchange={() => void commit()}
    onkeydown={(event) => {
      if (event.key === 'Enter') void commit()
      if (event.key === 'Escape') {
        typed = null
        fault = ''
      }
    }}
  />
  {#if fault}<FaultNote {id} text={fault} {field} />{/if}
</span>

<style>
  input {
    width: 100%;
  }
</style>
