<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { wordOptions } from '../../lib/options'
  import { newKey } from '../../lib/rows'
  import type { SettingsEditor } from '../../lib/settings.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    editor: SettingsEditor
  }
  let { editor }: Props = $props()
  const cards = $derived(editor.settings?.cards ?? [])
</script>

<div class="cards" role="group" aria-label="Cards of this production">
  <span class="soft">Cards</span>
  {#each cards as card, i (card.key)}
    <span class="card">
      <EntryField
        label="Name of the card"
        kind="text"
        size={9}
        value={card.name}
        fault={editor.fault(`cards[${i}].name`)}
        oninput={(value) => editor.set(`cards[${i}].name`, value)}
      />
      <EntryField
        label="Capacity of {card.name}"
        kind="number"
        size={5}
        value={card.capacity}
        fault={editor.fault(`cards[${i}].capacity`)}
        oninput={(value) => editor.set(`cards[${i}].capacity`, value)}
      />
      <Choice
        label="Unit of {card.name}: GB is 10 to the 9, GiB 2 to the 30 bytes"
        options={wordOptions(['GB', 'GiB'])}
        value={card.unit}
        onchange={(unit) => editor.set(`cards[${i}].unit`, unit)}
      />
      <button
        class="knob"
        aria-label="Delete the card {card.name}"
        onclick={() =>
          editor.set(
            'cards',
            cards.filter((_, at) => at !== i),
          )}>×</button
      >
    </span>
  {/each}
  <button
    class="knob"
    onclick={() =>
      editor.set('cards', [
        ...cards,
        { key: newKey(), name: `Card ${cards.length + 1}`, capacity: 512, unit: 'GB' },
      ])}>Add a card</button
  >
</div>

<style>
  .cards {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 0.9rem;
    font-size: 14px;
  }
  .card {
    display: inline-flex;
    align-items: center;
    gap: 0.3rem;
    padding-left: 8px;
    border-left: 2px solid var(--line-strong);
  }
  .knob {
    min-height: 25px;
    padding-block: 0;
  }
</style>
