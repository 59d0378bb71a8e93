<script lang="ts">
  import { typedNumber, typedNumbers } from '../../lib/paths'
  import type { Unit } from '../../lib/types'
  import { typedWeight, weightText } from '../../lib/weights'
  import FaultNote from './FaultNote.svelte'

  interface Props {
    label: string
    value: unknown
    kind: 'text' | 'number' | 'numbers' | 'weight'
    /** In which a weight is written; kept in kilograms. */
    unit?: Unit
    /** The rule that is broken. */
    fault?: string | undefined
    /** A figure with an origin of its own is marked by its first letter. */
    origin?: string | undefined
    /** Width in characters. */
    size?: number
    placeholder?: string
    oninput: (value: unknown) => void
    onfocus?: () => void
  }
  let {
    label,
    value,
    kind,
    fault,
    origin,
    unit = 'm',
    size = 6,
    placeholder = '',
    oninput,
    onfocus,
  }: Props = $props()

  const id = $props.id()
  let field = $state<HTMLElement>()
  let focused = $state(false)
  // What was typed is shown as long as the figure is what it was read as; after undo it is not.
  let typed = $state.raw<{ text: string; value: unknown } | null>(null)
  const written = $derived(
    kind === 'numbers' && Array.isArray(value)
      ? value.join(', ')
      : kind === 'weight' && typeof value === 'number'
        ? weightText(value, unit)
        : value == null
          ? ''
          : String(value),
  )

  function take(text: string) {
    const weight = (typing: string) => typedWeight(typing, unit)
    const read = { text: String, number: typedNumber, numbers: typedNumbers, weight }[kind](text)
    typed = { text, value: read }
    oninput(read)
  }
  const shown = $derived(typed && Object.is(typed.value, value) ? typed.text : written)
</script>

<span class="cell" bind:this={field} class:marked={origin}>
  <input
    class="set"
    class:figure={kind !== 'text'}
    class:right={kind === 'number' || kind === 'weight'}
    style:width="{size}ch"
    aria-label={label}
    aria-invalid={fault !== undefined}
    aria-describedby={fault && focused ? id : undefined}
    title={fault ?? (kind === 'number' ? undefined : written)}
    autocomplete="off"
    spellcheck="false"
    inputmode={kind === 'number' ? 'decimal' : undefined}
    {placeholder}
    value={shown}
    oninput={(event) => take(event.currentTarget.value)}
    onfocus={() => {
      focused = true
      onfocus?.()
    }}
    onblur={() => {
      focused = false
      typed = null
    }}
  />{#if origin}<abbr title="{origin}: see where it comes from">{origin.slice(0, 1)}</abbr>{/if}
  {#if fault && focused}<FaultNote {id} text={fault} {field} />{/if}
</span>

<style>
  .cell {
    position: relative;
    display: inline-block;
    white-space: nowrap;
  }
  input {
    height: 25px;
    font-size: 13.5px;
    border-bottom-color: transparent;
  }
  input:not(:focus) {
    text-overflow: ellipsis;
  }
  .right {
    text-align: right;
  }
  input:hover,
  input:focus {
    border-bottom-color: var(--line-strong);
  }
  input[aria-invalid='true'] {
    border-bottom: 2px solid var(--bad);
    color: var(--bad);
  }
  abbr {
    position: absolute;
    right: -7px;
    top: -1px;
    font-size: 12px;
    line-height: 1;
    color: var(--accent);
    text-decoration: none;
  }
</style>
