<script lang="ts">
  import type { SettingsEditor } from '../../lib/settings.svelte'
  import { wordOptions } from '../../lib/options'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    editor: SettingsEditor
  }
  let { editor }: Props = $props()

  const SIZES = ['eyes', 'face', 'chest', 'waist', 'knees', 'full figure'] as const
  type Size = (typeof SIZES)[number]
  const sizes = $derived(editor.settings?.sizes ?? {})
  const rows = $derived(Object.entries(sizes))
  let fresh = $state('')
  const put = (next: [string, Size][]) => editor.set('sizes', Object.fromEntries(next))
  function add() {
    const name = fresh.trim()
    if (name && !rows.some(([word]) => word.toLowerCase() === name.toLowerCase()))
      put([...rows, [name, 'waist']])
    fresh = ''
  }
</script>

<div class="sizes" role="group" aria-label="What shorthand of sizes means">
  {#each rows as [word, size] (word)}
    <span class="item">
      <strong>{word}</strong> <span class="soft">ends at</span>
      <Choice
        label="What {word} means"
        options={wordOptions(SIZES)}
        value={size}
        onchange={(to) => put(rows.map((row) => (row[0] === word ? [word, to] : row)))}
      />
      <button
        class="knob small"
        aria-label="Delete {word}"
        onclick={() => put(rows.filter((row) => row[0] !== word))}>×</button
      >
    </span>
  {/each}
  <form
    class="item"
    onsubmit={(event) => {
      event.preventDefault()
      add()
    }}
  >
    <EntryField
      label="Shorthand"
      kind="text"
      size={6}
      value={fresh}
      placeholder="MS"
      fault={editor.fault('sizes')}
      oninput={(value) => (fresh = String(value ?? ''))}
    />
    <button class="knob small" disabled={!fresh.trim()}>Add</button>
  </form>
</div>

<style>
  .sizes {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    align-items: center;
  }
  .sizes :global(input.set) {
    border-bottom: 1px dotted var(--line-strong);
  }
</style>
