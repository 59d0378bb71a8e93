<script lang="ts">
  import { distanceWithUnit, stepDistance } from '../lib/format'
  import type { Problem, Unit } from '../lib/types'

  interface Props {
    label: string
    /** Metres. */
    metres: number
    unit: Unit
    /** Reads what was typed; the rules of distances live on the server. */
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (metres: number, kind: string) => void
    id?: string
    size?: number
  }
  let { label, metres, unit, read, onchange, id, size = 8 }: Props = $props()

  let typed = $state<string | null>(null)
  let fault = $state('')

  async function commit() {
    if (typed === null) return
    const { data, problem } = await read(typed, unit)
    if (data) {
      fault = ''
      typed = null
      onchange(data.metres, '')
    } else {
      fault = problem?.faults[0]?.rule ?? problem?.message ?? 'Not understood'
    }
  }

  function step(steps: number) {
    typed = null
    fault = ''
    onchange(stepDistance(metres, unit, steps), `step ${label}`)
  }

  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[event.key]
    if (event.key === 'Enter') void commit()
    else if (event.key === 'Escape') {
      typed = null
      fault = ''
    } else if (by) {
      event.preventDefault()
      step(by)
    }
  }

  // The wheel steps a field that has the keyboard; Svelte's own wheel handlers are passive.
  function wheel(node: HTMLInputElement) {
    const turn = (event: WheelEvent) => {
      if (document.activeElement !== node) return
      event.preventDefault()
      step(event.deltaY < 0 ? 1 : -1)
    }
    node.addEventListener('wheel', turn, { passive: false })
    return () => node.removeEventListener('wheel', turn)
  }
</script>

<span class="field">
  <input
    {id}
    class="set figure"
    {size}
    aria-label={label}
    aria-invalid={fault !== ''}
    aria-describedby={fault ? `${id ?? label}-fault` : undefined}
    autocomplete="off"
    value={typed ?? distanceWithUnit(metres, unit)}
    oninput={(event) => (typed = event.currentTarget.value)}
    onfocus={(event) => event.currentTarget.select()}
    onblur={() => void commit()}
    {onkeydown}
    {@attach wheel}
  />
  {#if fault}<span class="fault" id="{id ?? label}-fault" role="alert">{fault}</span>{/if}
</span>

<style>
  .field {
    position: relative;
    display: inline-block;
  }
  .fault {
    position: absolute;
    z-index: 20;
    left: 0;
    top: 100%;
    width: max-content;
    max-width: 20rem;
    padding: 0.2rem 0.5rem;
    background: var(--panel);
    border: 1px solid var(--bad);
    font-size: 13px;
  }
</style>
