<script lang="ts">
  import { distanceWithUnit, snapAside, stepDistance } from '../../lib/format'
  import type { Problem, Unit } from '../../lib/types'
  import FaultNote from './FaultNote.svelte'

  interface Props {
    label: string
    /** Metres. */
    metres: number
    unit: Unit
    /** Reads what was typed; the rules of distances live on the server. */
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (metres: number, kind: string) => void
    /** Whether it may lie on either side: to the left, below. */
    signed?: boolean
    id?: string
    size?: number
  }
  let { label, metres, unit, read, onchange, signed = false, id, size = 8 }: Props = $props()

  const own = $props.id()
  let field = $state<HTMLElement>()
  let typed = $state<string | null>(null)
  let fault = $state('')
  const shown = $derived(
    metres === 0 ? `0 ${unit}` : `${metres < 0 ? '−' : ''}${distanceWithUnit(Math.abs(metres), unit)}`,
  )

  async function commit() {
    if (typed === null) return
    const bare = signed ? typed.trim().replace(/^[-−+]\s*/, '') : typed
    const sign = signed && /^[-−]/.test(typed.trim()) ? -1 : 1
    // Nothing is a place here, though no distance.
    const { data, problem } =
      signed && /^0*[.,]?0*\s*(m|ft|cm|')?$/.test(bare) ? { data: { metres: 0 } } : await read(bare, unit)
    if (data) {
      fault = ''
      typed = null
      onchange(sign * data.metres || 0, '')
    } else {
      fault = problem?.faults[0]?.rule ?? problem?.message ?? 'Not understood'
    }
  }

  function step(steps: number) {
    typed = null
    fault = ''
    const next = signed ? snapAside(metres, unit, steps) : stepDistance(metres, unit, steps)
    onchange(next, `step ${label}`)
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

<span class="field" bind:this={field}>
  <input
    {id}
    class="set figure"
    {size}
    aria-label={label}
    aria-invalid={fault !== ''}
    aria-describedby={fault ? own : undefined}
    autocomplete="off"
    value={typed ?? shown}
    oninput={(event) => (typed = event.currentTarget.value)}
    onfocus={(event) => event.currentTarget.select()}
    onblur={() => void commit()}
    {onkeydown}
    {@attach wheel}
  />
  {#if fault}<FaultNote id={own} text={fault} {field} />{/if}
</span>

<style>
  .field {
    display: inline-block;
  }
</style>
