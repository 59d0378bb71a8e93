<script lang="ts">
  import { onDestroy, onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { READY_REFERENCES } from '../../lib/generated/choices'
  import { wordOptions } from '../../lib/options'
  import { referenceName } from '../../lib/reference'
  import { freeName } from '../../lib/rows'
  import { SettingsEditor } from '../../lib/settings.svelte'
  import { trade, TRADES } from '../../lib/trade.svelte'
  import type { Package } from '../../lib/types'
  import { UNITS } from '../../lib/units'
  import type { SectionProps } from '../../lib/views'
  import { cocChoice, cocOf, cocOptions } from '../../parts/chain/coc'
  import { aspectOptions } from '../../parts/chain/links'
  import Choice from '../../parts/controls/Choice.svelte'
  import Segments from '../../parts/controls/Segments.svelte'
  import Toggles from '../../parts/controls/Toggles.svelte'
  import CardsEditor from '../../parts/documents/CardsEditor.svelte'
  import MainsEditor from '../../parts/documents/MainsEditor.svelte'
  import SizesEditor from '../../parts/documents/SizesEditor.svelte'
  import EntryField from '../../parts/fields/EntryField.svelte'
  import SettingField from '../../parts/fields/SettingField.svelte'
  import SettingsNotice from '../../parts/page/SettingsNotice.svelte'

  let { productionId, onundoable }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const editor = new SettingsEditor(productionId)
  // The header's undo works on what is shown here.
  $effect(() => onundoable(editor.undo))
  onDestroy(() => {
    editor.close()
    onundoable(null)
  })
  const settings = $derived(editor.settings)
  // The page speaks as Settings say, also when they are undone, or changed in another tab.
  $effect(() => {
    if (settings) {
      trade.words = settings.words
      trade.unit = settings.unit
    }
  })
  /** What recording formats need, as their bodies name it. */
  let needed = $state.raw<string[]>([])
  let equipment = $state.raw<Package | null>(null)
  onMount(async () => {
    const { data } = await client.readPackage(productionId)
    equipment = data ?? null
    const formats = data?.bodies.flatMap((body) => body.modes.flatMap((mode) => mode.formats)) ?? []
    needed = [...new Set(formats.flatMap((format) => format.needs))].sort()
  })
  const references = $derived(settings?.references ?? [])
  const deliveries = $derived(settings?.deliveries ?? [])
  const OWN = 'own'
  /** Those that are not taken yet, and one to be filled in. */
  const ready = $derived([
    ...READY_REFERENCES.filter((window) => !references.some((r) => r.name === window.name)).map((window) => ({
      value: window.name as string,
      label: `${window.name}, ${window.width_mm} × ${window.height_mm} mm`,
    })),
    { value: OWN, label: 'the camera that I own…' },
  ])
  const BY_BODY = 'first body'
  /** Those of the production, and the one that is chosen where it is none of them any more. */
  const own = $derived.by(() => {
    const chosen = settings?.reference?.own
    return chosen && !references.some(({ name }) => name === chosen.name)
      ? [...references, chosen]
      : references
  })
  const house = $derived([
    {
      value: BY_BODY,
      label:
        settings?.reference || !equipment
          ? 'as the first body suggests'
          : `as the first body suggests: ${referenceName(equipment.reference, equipment)}`,
    },
    { value: 'super35', label: 'Super 35' },
    { value: 'full_frame', label: 'full frame' },
    ...own.map(({ name }) => ({ value: `own${name}`, label: name })),
  ])
  const houseKey = $derived(
    settings?.reference
      ? settings.reference.own
        ? `own${settings.reference.own.name}`
        : settings.reference.name
      : BY_BODY,
  )
  function setHouse(key: string) {
    const window = own.find(({ name }) => key === `own${name}`)
    const by = settings?.reference?.by ?? 'width'
    if (key === BY_BODY) editor.set('reference', null)
    else if (window) editor.set('reference', { name: 'own', own: window, scan_mode_id: null, by })
    else editor.set('reference', { name: key, own: null, scan_mode_id: null, by })
  }
  /** A third of a stop is kept exactly, and shown as it is said. */
  const twoDigits = (value: unknown) => (typeof value === 'number' ? Number(value.toFixed(2)) : value)
  const MAINS = [
    { value: '50', label: '50 Hz' },
    { value: '60', label: '60 Hz' },
  ] as const

  function addReference(name: string) {
    const window = READY_REFERENCES.find((r) => r.name === name)
    const own = { name: freeName('My camera', references), width_mm: 23.6, height_mm: 15.6 }
    editor.set('references', [...references, window ?? own])
  }
  function addDelivery() {
    const delivery = {
      name: freeName('Delivery', deliveries),
      aspect: 16 / 9,
      long_edge_px: 3840,
      protect: 0,
    }
    editor.set('deliveries', [...deliveries, delivery])
  }
</script>

{#snippet entry(
  path: string,
  label: string,
  value: unknown,
  kind: 'text' | 'number' = 'number',
  placeholder = '',
)}
  <EntryField
    {label}
    {kind}
    size={kind === 'text' ? 20 : 6}
    {value}
    {placeholder}
    fault={editor.fault(path)}
    oninput={(typed) => editor.set(path, typed)}
  />
{/snippet}
{#snippet removal(list: string, rows: readonly { name: string }[], at: number)}
  <button
    class="knob small"
    aria-label="Delete {rows[at]?.name}"
    onclick={() =>
      editor.set(
        list,
        rows.filter((_, i) => i !== at),
      )}>Delete</button
  >
{/snippet}

<SettingsNotice {editor} problem={null} />
{#if settings}
  <div class="settings">
    <h2>Shooting</h2>
    <div class="bar">
      <SettingField label="Base rate" {editor} path="base_fps" unit="fps" />
      <SettingField label="Shutter" {editor} path="shutter_deg" unit="°" />
      <SettingField label="High speed" {editor} path="wanted_fps" unit="fps" />
      <SettingField label="A day has" {editor} path="minutes_a_day" unit="minutes of material" />
      <span class="item"
        ><span class="soft">Sharp is</span>
        <Choice
          label="Rule for the circle of confusion"
          options={cocOptions(settings.coc).filter((option) => option.value !== null)}
          value={cocChoice(settings.coc)}
          onchange={(label) => editor.set('coc', cocOf(label))}
        /></span
      >
    </div>
    <h2>Words</h2>
    <div class="bar">
      <span class="item"
        ><span class="soft">Words of</span>
        <Segments
          label="Words of the trade"
          options={TRADES}
          value={settings.words}
          onchange={(words) => editor.set('words', words)}
        /> <span class="soft">{TRADES.find((row) => row.value === settings.words)?.about}</span></span
      >
    </div>
    <h2>
      What the show is shot on <span class="soft"
        >shots stay on it unless a need forces them off, and say which</span
      >
    </h2>
    <MainsEditor {editor} package={equipment} />
    <h2>Distances and mains</h2>
    <div class="bar">
      <Segments
        label="Unit of distances"
        options={UNITS}
        value={settings.unit}
        onchange={(unit) => editor.set('unit', unit)}
      />
      <span class="item"
        ><span class="soft">Mains</span>
        <Segments
          label="Mains"
          options={MAINS}
          value={String(settings.mains_hz) === '60' ? '60' : '50'}
          onchange={(hz) => editor.set('mains_hz', Number(hz))}
        /></span
      >
      <label class="item"
        ><input
          type="checkbox"
          checked={settings.brackets}
          onchange={(event) => editor.set('brackets', event.currentTarget.checked)}
        />
        {settings.unit === 'm' ? 'feet' : 'metres'} in brackets in sentences</label
      >
    </div>
    <h2>
      House facts <span class="soft">what stands in where a shot, or a lens, does not say</span>
    </h2>
    <div class="bar">
      <span class="item"
        ><span class="soft">Usual stop</span>
        {@render entry('usual_stop', 'Usual stop', settings.usual_stop, 'text', 'T2.8-T5.6')}</span
      >
      <span class="item"
        ><span class="soft">Usual support</span>
        {@render entry('usual_rig', 'Usual support', settings.usual_rig, 'text', 'gimbal 4.5 kg')}</span
      >
      <span class="item"
        ><span class="soft">T only: the f-number is</span>
        {@render entry('t_loss_stops', 'Stops from T to f', twoDigits(settings.t_loss_stops))} stops wider</span
      >
      <span class="item"
        ><span class="soft">Dark corners from</span>
        {@render entry('seen_dark_percent', 'Dark corners from, per cent', settings.seen_dark_percent)} % of the
        recording</span
      >
    </div>
    <p class="soft">
      Usual stop and support are wishes of every shot that says none, written as in its cells (T2.8-T5.6;
      gimbal 4.5 kg). Tested circles and noise limits are figures of the lens and the body: type them there,
      with where they come from. Filters that are always there stand among the ND filters of Mounts and
      adapters.
    </p>
    <h2>
      What crops are counted against <span class="soft">on every page, sheet and file</span>
    </h2>
    <div class="bar">
      <Choice label="Reference of the production" options={house} value={houseKey} onchange={setHouse} />
      {#if settings.reference}
        <span class="soft">by</span>
        <Choice
          label="Dimension of the reference"
          options={wordOptions(['width', 'height', 'diagonal'])}
          value={settings.reference.by}
          onchange={(by) => editor.set('reference', { ...settings.reference, by })}
        />
      {/if}
      {#if editor.fault('reference')}<span class="bad">{editor.fault('reference')}</span>{/if}
    </div>
    <ul>
      {#each references as reference, i (i)}
        <li class="entries">
          {@render entry(`references[${i}].name`, 'Name of the reference', reference.name, 'text')}
          {@render entry(`references[${i}].width_mm`, `Width of ${reference.name}`, reference.width_mm)} ×
          {@render entry(`references[${i}].height_mm`, `Height of ${reference.name}`, reference.height_mm)} mm
          {@render removal('references', references, i)}
        </li>
      {/each}
    </ul>
    <Choice
      label="Add a window of reference"
      options={ready}
      value={null}
      placeholder="Add a window of reference…"
      onchange={addReference}
    />
    <h2>
      What is delivered <span class="soft"
        >the first is the main picture, and what a new Bench frames for</span
      >
    </h2>
    <ul>
      {#each deliveries as delivery, i (i)}
        <li class="entries">
          {@render entry(`deliveries[${i}].name`, 'Name of the delivery', delivery.name, 'text')}
          <Choice
            label="Aspect of {delivery.name}"
            options={aspectOptions(delivery.aspect ?? null)}
            value={delivery.aspect ?? null}
            onchange={(aspect) => editor.set(`deliveries[${i}].aspect`, aspect)}
          />
          {@render entry(
            `deliveries[${i}].long_edge_px`,
            `Longer edge of ${delivery.name}`,
            delivery.long_edge_px,
          )} px
          {@render removal('deliveries', deliveries, i)}
        </li>
      {/each}
    </ul>
    <button class="knob" onclick={addDelivery}>Add a delivery</button>
    {#if needed.length}
      <h2>
        What is carried besides <span class="soft"
          >accessories and licences that recording formats need; the finder leaves out what lacks one</span
        >
      </h2>
      <Toggles
        label="Carried"
        options={needed.map((name) => ({ value: name, label: name }))}
        value={settings.carried}
        onchange={(carried) => {
          // What no body needs any more may be needed again.
          const others = settings.carried.filter((name) => !needed.includes(name))
          editor.set('carried', [...others, ...carried])
        }}
      />
    {/if}
    <h2>
      What sizes mean <span class="soft"
        >shorthand of shot lists that ends elsewhere here than with most people</span
      >
    </h2>
    <SizesEditor {editor} />
    <CardsEditor {editor} />
  </div>
{/if}

<style>
  .settings {
    display: grid;
    gap: 8px;
    justify-items: start;
    font-size: 14px;
  }
  h2 {
    margin-top: 10px;
    font-size: 15px;
  }
  h2 .soft {
    font-size: 13px;
    font-weight: 400;
  }
</style>
