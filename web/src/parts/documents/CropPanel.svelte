<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { wordOptions } from '../../lib/options'
  import { freeName, newKey } from '../../lib/rows'
  import type { BodyDocument, CropDocument } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    document: BodyDocument
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
    /** Kind of a figure's own origin, or undefined. */
    origin: (key: string, field: string) => string | undefined
    onfigure: (key: string, field: string, label: string) => void
  }
  let { document, fault, origin, onset, onfigure }: Props = $props()

  const LENSES = [
    { value: 'any', label: 'with any lens' },
    { value: 'spherical', label: 'not with a squeezed lens' },
    { value: 'short_circle', label: 'only where the circle is short' },
    { value: 'corrected', label: 'as much as the lens says' },
  ]
  const ASPECTS = ['16:9', '17:9', '3:2', '4:3', '6:5']
  const aspectsOf = (set: string | undefined) => [
    { value: '', label: 'every aspect' },
    ...wordOptions(set && !ASPECTS.includes(set) ? [...ASPECTS, set] : ASPECTS),
  ]

  function add() {
    const crop: CropDocument = {
      key: newKey(),
      name: freeName('New crop', document.crops),
      lens: 'any',
      always: false,
      menu: { name: '', where: '', overridden_by: '', finder: '', knocked: '' },
      origins: {},
      rules: [],
    }
    onset('crops', [...document.crops, crop])
  }

  function addRule(i: number, crop: CropDocument) {
    const used = new Set(crop.rules?.map((rule) => rule.mode))
    const mode = document.modes.find((m) => !used.has(m.key ?? '')) ?? document.modes[0]
    if (mode)
      onset(`crops[${i}].rules`, [...(crop.rules ?? []), { mode: mode.key, aspect: null, factor: 1.1 }])
  }

  const without = <T,>(list: readonly T[] | undefined, at: number) => (list ?? []).filter((_, i) => i !== at)
</script>

<p class="soft">
  Switches of the body that crop what was read. They never act on raw. The first line that fits a recording
  holds; on the Bench they stand in the Recording link, greyed with the reason where they can't act. A
  correction of distortion takes what each lens says; its factor here is the most where a lens does not say.
</p>
{#each document.crops as crop, i (crop.key)}
  <section aria-label={crop.name}>
    <span class="head">
      <EntryField
        label="Name of the crop"
        kind="text"
        size={20}
        value={crop.name}
        fault={fault(`crops[${i}].name`)}
        oninput={(value) => onset(`crops[${i}].name`, value)}
      />
      <Choice
        label="Lenses with which {crop.name} acts"
        options={LENSES}
        value={crop.lens}
        onchange={(lens) => onset(`crops[${i}].lens`, lens)}
      />
      <label
        ><input
          type="checkbox"
          checked={crop.always}
          onchange={(event) => onset(`crops[${i}].always`, event.currentTarget.checked)}
        /> always on</label
      >
      <button class="knob" disabled={!document.modes.length} onclick={() => addRule(i, crop)}
        >Add a line</button
      >
      <button class="knob" onclick={() => onset('crops', without(document.crops, i))}
        >Delete {crop.name}</button
      >
    </span>
    <ul>
      {#each crop.rules ?? [] as rule, j (j)}
        {@const at = `crops[${i}].rules[${j}]`}
        <li>
          <Choice
            label="Scan mode"
            options={document.modes.map((mode) => ({ value: mode.key, label: mode.name }))}
            value={rule.mode}
            onchange={(mode) => onset(`${at}.mode`, mode)}
          />
          <Choice
            label="Aspect of the raster"
            options={aspectsOf(rule.aspect?.join(':'))}
            value={rule.aspect?.join(':') ?? ''}
            onchange={(aspect) => onset(`${at}.aspect`, aspect ? aspect.split(':').map(Number) : null)}
          />
          ×<EntryField
            label="Factor"
            kind="number"
            value={rule.factor}
            fault={fault(`${at}.factor`)}
            origin={origin(crop.key ?? '', 'rules')}
            oninput={(value) => onset(`${at}.factor`, value)}
            onfocus={() => onfigure(crop.key ?? '', 'rules', `Factors of ${crop.name}`)}
          />
          <button
            class="knob"
            aria-label="Delete this line"
            onclick={() => onset(`crops[${i}].rules`, without(crop.rules, j))}>×</button
          >
        </li>
      {:else}
        <li class="soft">Acts nowhere yet: add a line with a scan mode and a factor.</li>
      {/each}
    </ul>
  </section>
{:else}
  <p class="soft">No in-camera crop yet.</p>
{/each}
<button class="knob" onclick={add}>Add a crop</button>

<style>
  section {
    margin-block: 6px;
    padding: 4px 10px;
    border-left: 2px solid var(--line-strong);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1rem;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 1.8rem;
  }
  li {
    display: inline-flex;
    align-items: center;
    gap: 0.5rem;
    min-height: 30px;
  }
</style>
