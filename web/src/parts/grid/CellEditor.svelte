<script lang="ts" generics="R extends Row">
  import { readText, valueOf, writtenOf, type Column, type Row } from './columns'
  import type { Way } from './grid.svelte'

  interface Props {
    column: Column<R>
    row: R
    label: string
    /** What was typed to begin with; null: what is there. */
    start: string | null
    ondone: (text: string, way: Way) => void
    ondrop: () => void
  }
  let { column, row, label, start, ondone, ondrop }: Props = $props()

  const several = $derived(column.kind === 'choices')
  const written = $derived(writtenOf(column, row))
  const options = $derived.by(() => {
    const known = column.choices?.(row) ?? []
    const value = valueOf(column, row)
    const there = value == null || Array.isArray(value) || known.some((c) => c.value === value)
    return there ? known : [...known, { value: String(value), label: String(value) }]
  })
  let over = false

  function done(text: string, way: Way) {
    if (over) return
    over = true
    ondone(text, way)
  }
  function drop() {
    over = true
    ondrop()
  }

  const WAYS: Partial<Record<string, Way>> = { Enter: 'down', Tab: 'next', ArrowUp: 'up', ArrowDown: 'down' }
  const BACK: Partial<Record<Way, Way>> = { down: 'up', next: 'before' }

  function onkeydown(event: KeyboardEvent & { currentTarget: HTMLInputElement | HTMLSelectElement }) {
    event.stopPropagation()
    if (event.altKey || event.ctrlKey || event.metaKey) return
    const arrow = event.key.startsWith('Arrow')
    const way = WAYS[event.key]
    if (event.key === 'Escape') {
      event.preventDefault()
      drop()
    } else if (way && !(arrow && column.kind === 'choice')) {
      event.preventDefault()
      done(event.currentTarget.value, event.shiftKey && !arrow ? (BACK[way] ?? way) : way)
    }
  }

  function begin(node: HTMLInputElement | HTMLSelectElement) {
    node.focus()
    if (node instanceof HTMLInputElement) {
      if (start === null) node.select()
    } else if (navigator.userActivation?.isActive) {
      // Where the browser does not open it by itself, the list stands closed in the cell.
      try {
        node.showPicker?.()
      } catch {
        /* It opens with the next key. */
      }
    }
  }

  function toggle(value: string, on: boolean) {
    const now = readText(column, row, written)
    const list = Array.isArray(now) ? now : []
    const next = options.filter((c) => (c.value === value ? on : list.includes(c.value)))
    ondone(next.map((c) => c.label).join(', '), 'stay')
  }
</script>

{#if several}
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <div
    role="group"
    aria-label={label}
    tabindex="-1"
    onkeydown={(event) => {
      event.stopPropagation()
      if (event.key === 'Escape' || event.key === 'Enter') drop()
    }}
    onfocusout={(event) => {
      if (!event.currentTarget.contains(event.relatedTarget as Node | null)) drop()
    }}
    {@attach (node) => node.querySelector('input')?.focus()}
  >
    {#each options as { value, label: words } (value)}<label
        ><input
          type="checkbox"
          checked={(valueOf(column, row) as string[] | null | undefined)?.includes(value) ?? false}
          onchange={(event) => toggle(value, event.currentTarget.checked)}
        />{words}</label
      >{/each}
  </div>
{:else if column.kind === 'choice'}
  <select
    class="set"
    aria-label={label}
    value={valueOf(column, row) ?? ''}
    onchange={(event) => done(event.currentTarget.selectedOptions[0]?.label ?? '', 'stay')}
    onblur={() => over || drop()}
    {onkeydown}
    {@attach begin}
  >
    {#each options as { value, label: words } (value)}<option {value}>{words}</option>{/each}
  </select>
{:else}
  <input
    class:figure={column.kind !== 'text'}
    class:right={column.kind === 'number' || column.kind === 'weight'}
    style:width="{column.size ?? 6}ch"
    aria-label={label}
    autocomplete="off"
    spellcheck="false"
    inputmode={column.kind === 'number' ? 'decimal' : undefined}
    value={start ?? written}
    onblur={(event) => done(event.currentTarget.value, 'stay')}
    {onkeydown}
    {@attach begin}
  />
{/if}

<style>
  input:not([type='checkbox']) {
    min-width: 100%;
    height: 23px;
    padding: 0 2px;
    border: 0;
    background: var(--ground);
    font-size: inherit;
    outline: 2px solid var(--accent);
  }
  .right {
    text-align: right;
  }
  [role='group'] {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 0.2rem;
  }
</style>
