<script lang="ts">
  import { eitherWay, typedNumber } from '../../lib/paths'
  import FaultNote from './FaultNote.svelte'

  interface Props {
    label: string
    value: number | null
    /** What the server says is wrong with it. */
    fault?: string | undefined
    size?: number
    /** Whether it may be left empty. */
    optional?: boolean
    onchange: (value: number | null) => void
  }
  let { label, value, fault = '', size = 6, optional = false, onchange }: Props = $props()
  const id = $props.id()
  let field = $state<HTMLElement>()
  let own = $state('')
  const told = $derived(own || fault)

  function read(input: HTMLInputElement) {
    const text = input.value.trim().replace('−', '-')
    if (text === '' && optional) {
      own = ''
      onchange(null)
      return
    }
    // 1/50 is a number as well: shutter times are written so.
    const parts = text.split('/').map(typedNumber)
    const asked = parts.map((part) => (typeof part === 'string' ? eitherWay(part) : '')).find(Boolean)
    const [over, under = 1] = parts.map((part) => (typeof part === 'number' ? part : NaN))
    const figure = parts.length > 2 || over === undefined ? NaN : over / under
    own = asked ?? (Number.isFinite(figure) ? '' : 'a number, like 180, 0.5 or 1/50')
    if (own === '') onchange(figure)
  }
</script>

<span class="field" bind:this={field}
  ><input
    class="set figure"
    {size}
    inputmode="decimal"
    autocomplete="off"
    aria-label={label}
    aria-invalid={told !== ''}
    aria-describedby={told ? id : undefined}
    value={value ?? ''}
    onfocus={(event) => event.currentTarget.select()}
    onchange={(event) => read(event.currentTarget)}
  />{#if told}<FaultNote {id} text={told} {field} />{/if}</span
>

<style>
  .field {
    display: inline-block;
  }
</style>
