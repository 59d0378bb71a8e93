<script lang="ts">
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
  let own = $state('')
  const told = $derived(own || fault)

  function read(input: HTMLInputElement) {
    const text = input.value.trim().replace(',', '.').replace('−', '-')
    if (text === '' && optional) {
      own = ''
      onchange(null)
      return
    }
    // 1/50 is a number as well: shutter times are written so.
    const [over, under, more] = text.split('/').map(Number)
    const figure = more !== undefined ? NaN : under === undefined ? over : (over ?? NaN) / under
    own = text !== '' && Number.isFinite(figure) ? '' : 'a number, like 180, 0.5 or 1/50'
    if (own === '') onchange(figure ?? null)
  }
</script>

<span class="field"
  ><input
    class="set figure"
    {size}
    inputmode="decimal"
    autocomplete="off"
    aria-label={label}
    aria-invalid={told !== ''}
    value={value ?? ''}
    onfocus={(event) => event.currentTarget.select()}
    onchange={(event) => read(event.currentTarget)}
  />{#if told}<span class="fault" role="alert">{told}</span>{/if}</span
>

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
