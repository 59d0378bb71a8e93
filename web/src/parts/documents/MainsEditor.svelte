<script lang="ts">
  import { newKey } from '../../lib/rows'
  import type { SettingsEditor } from '../../lib/settings.svelte'
  import type { Package } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    editor: SettingsEditor
    package: Package | null
  }
  let { editor, package: equipment }: Props = $props()
  const mains = $derived(editor.settings?.mains ?? [])
  type Main = (typeof mains)[number]
  const bodies = $derived(equipment?.bodies ?? [])
  const modesOf = (main: Main) => bodies.find((body) => body.name === main.body)?.modes ?? []
  const formatsOf = (main: Main) => modesOf(main).find((mode) => mode.name === main.mode)?.formats ?? []
  /** What is named stays a choice where the package has it no more. */
  const options = (names: string[], now: string, any: string) => [
    ...(any ? [{ value: '', label: any }] : []),
    ...[...new Set(now ? [...names, now] : names)].map((value) => ({
      value,
      label: names.includes(value) ? value : `${value}, not in the package`,
    })),
  ]
  const put = (i: number, part: Partial<Main>) =>
    editor.set(
      'mains',
      mains.map((main, at) => (at === i ? { ...main, ...part } : main)),
    )
  /** The first is everybody's, each further one a unit's own. */
  function add() {
    const unit = mains.length
      ? (['A', 'B', 'C', 'D'].find((u) => !mains.some((m) => m.unit === u)) ?? 'E')
      : ''
    const body = bodies[0]
    if (!body) return
    const fresh: Main = { key: newKey(), unit, body: body.name, mode: '', format: '', must: false, weight: 5 }
    editor.set('mains', [...mains, fresh])
  }
</script>

<ul aria-label="Main formats">
  {#each mains as main, i (main.key)}
    <li>
      <span class="item"
        ><span class="soft">unit</span>
        <EntryField
          label="Unit of main format {i + 1}"
          kind="text"
          size={5}
          value={main.unit}
          fault={editor.fault(`mains[${i}].unit`)}
          oninput={(unit) => put(i, { unit: String(unit ?? '') })}
        />
        {#if !main.unit}<span class="soft">every unit</span>{/if}</span
      >
      <Choice
        label="Body of main format {i + 1}"
        options={options(
          bodies.map((body) => body.name),
          main.body,
          '',
        )}
        value={main.body}
        onchange={(body) => put(i, { body, mode: '', format: '' })}
      />
      <Choice
        label="Scan mode of main format {i + 1}"
        options={options(
          modesOf(main).map((mode) => mode.name),
          main.mode,
          'any scan mode',
        )}
        value={main.mode}
        onchange={(mode) => put(i, { mode, format: '' })}
      />
      {#if main.mode}
        <Choice
          label="Recording format of main format {i + 1}"
          options={options(
            formatsOf(main).map((format) => format.name),
            main.format,
            'any of its formats',
          )}
          value={main.format}
          onchange={(format) => put(i, { format })}
        />
      {/if}
      <label class="item"
        ><input
          type="checkbox"
          checked={main.must}
          onchange={(event) => put(i, { must: event.currentTarget.checked })}
        /> a must</label
      >
      {#if !main.must}
        <label class="item"
          ><span class="soft">weight</span>
          <EntryField
            label="Weight of main format {i + 1}"
            kind="number"
            size={3}
            value={main.weight}
            fault={editor.fault(`mains[${i}].weight`)}
            oninput={(weight) => put(i, { weight: weight as number })}
          /></label
        >
      {/if}
      <button
        class="knob small"
        aria-label="Delete main format {i + 1}"
        onclick={() =>
          editor.set(
            'mains',
            mains.filter((_, at) => at !== i),
          )}>Delete</button
      >
    </li>
  {/each}
</ul>
{#if editor.fault('mains')}<p class="bad">{editor.fault('mains')}</p>{/if}
<div class="bar">
  <button class="knob" disabled={!bodies.length} onclick={add}
    >{mains.length ? 'Add one for a unit' : 'Name a main format'}</button
  >
  <span class="item"
    ><span class="soft">nothing is recorded below</span>
    <EntryField
      label="Least longer edge"
      kind="number"
      size={6}
      value={editor.settings?.least_px}
      fault={editor.fault('least_px')}
      oninput={(px) => editor.set('least_px', px)}
    /> px,
    <EntryField
      label="Least bits"
      kind="number"
      size={3}
      value={editor.settings?.least_bits}
      fault={editor.fault('least_bits')}
      oninput={(bits) => editor.set('least_bits', bits)}
    /> bit, unless a shot asks</span
  >
</div>

<style>
  ul {
    display: grid;
    gap: 4px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
  }
  input {
    accent-color: var(--accent);
  }
  li :global(input.set),
  .bar :global(input.set) {
    border-bottom: 1px dotted var(--line-strong);
  }
</style>
