<script lang="ts">
  import { ratesText, typedRates } from '../lib/format'
  import { typedNumber, typedNumbers } from '../lib/paths'

  interface Props {
    label: string
    value: unknown
    kind: 'text' | 'number' | 'rates' | 'numbers'
    /** The rule that is broken. */
    fault?: string | undefined
    /** A figure with an origin of its own is marked by its first letter. */
    origin?: string | undefined
    /** Width in characters. */
    size?: number
    /** Column, so that the arrow keys find the same one in the next row. */
    column?: string
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
    size = 6,
    column,
    placeholder = '',
    oninput,
    onfocus,
  }: Props = $props()

  // What was typed is shown as long as the figure is what it was read as; after undo it is not.
  let typed = $state.raw<{ text: string; value: unknown } | null>(null)
  const written = $derived(
    kind === 'rates' && Array.isArray(value)
      ? ratesText(value)
      : kind === 'numbers' && Array.isArray(value)
        ? value.join(', ')
        : value == null
          ? ''
          : String(value),
  )

  function take(text: string) {
    const read = { text: String, rates: typedRates, number: typedNumber, numbers: typedNumbers }[kind](text)
    typed = { text, value: read }
    oninput(read)
  }
  const shown = $derived(typed && Object.is(typed.value, value) ? typed.text : written)

  /** Up and down go to the same column of the neighbouring row. */
  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowUp: -1, ArrowDown: 1, Enter: 1 }[event.key]
    if (!by || !column || event.altKey || event.ctrlKey || !(event.currentTarget instanceof HTMLElement))
      return
    const row = event.currentTarget.closest('tr')
    const next = by > 0 ? row?.nextElementSibling : row?.previousElementSibling
    const cell = next?.querySelector<HTMLInputElement>(`input[data-column="${column}"]`)
    if (!cell) return
    event.preventDefault()
    cell.focus()
    cell.select()
  }
</script>

<span class="cell" class:marked={origin}>
  <input
    class="set"
    class:figure={kind !== 'text'}
    class:right={kind === 'number'}
    style:width="{size}ch"
    aria-label={label}
    aria-invalid={fault !== undefined}
    title={fault ?? (kind === 'number' ? undefined : written)}
    data-column={column}
    autocomplete="off"
    spellcheck="false"
    inputmode={kind === 'number' ? 'decimal' : undefined}
    {placeholder}
    value={shown}
    oninput={(event) => take(event.currentTarget.value)}
    {onfocus}
    onblur={() => (typed = null)}
    {onkeydown}
  />{#if origin}<abbr title="{origin}: see where it comes from">{origin.slice(0, 1)}</abbr>{/if}
  {#if fault}<span class="fault" role="alert">{fault}</span>{/if}
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
    font-size: 10px;
    line-height: 1;
    color: var(--accent);
    text-decoration: none;
  }
  .fault {
    display: none;
    position: absolute;
    z-index: 20;
    left: 0;
    top: 100%;
    width: max-content;
    max-width: 19rem;
    padding: 0.2rem 0.5rem;
    background: var(--panel);
    border: 1px solid var(--bad);
    font-size: 13px;
    white-space: normal;
  }
  input:focus ~ .fault {
    display: block;
  }
</style>
