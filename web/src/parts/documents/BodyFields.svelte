<script lang="ts">
  import { trade } from '../../lib/trade.svelte'
  import type { BodyDocument } from '../../lib/types'
  import { weightUnit } from '../../lib/weights'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    document: BodyDocument
    fault: (path: string) => string | undefined
    origin: (field: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onfigure: (field: string, label: string) => void
  }
  let { document, fault, origin, onset, onfigure }: Props = $props()

  const cell = (path: string, label: string) => {
    const field = path.replace(/\[\d\]$/, '')
    return {
      label,
      fault: fault(path),
      origin: origin(field),
      oninput: (value: unknown) => onset(path, value),
      onfocus: () => onfigure(field, label),
    }
  }

  /** A list is one field; what is wrong with one of its entries is told there. */
  const list = (path: 'eis' | 'base_eis' | 'nd_stops', label: string) => ({
    ...cell(path, label),
    fault: fault(path) ?? document[path].map((_, i) => fault(`${path}[${i}]`)).find(Boolean),
    value: document[path],
  })

  const SLOTS = [
    { value: 'after', label: 'one after the other' },
    { value: 'both', label: 'the same on all' },
    { value: 'proxy', label: 'the proxy on the second' },
  ] as const

  function setSize(axis: number, value: unknown) {
    const size: unknown[] = [...(document.size_mm ?? [null, null, null])]
    size[axis] = value
    onset('size_mm', size.every((n) => n === null) ? null : size)
  }

  function setTotal(axis: number, value: unknown) {
    const total: unknown[] = [...(document.total_photosites ?? [null, null])]
    total[axis] = value
    onset('total_photosites', total.every((n) => n === null) ? null : total)
  }
</script>

<div class="fields">
  <span class="item"
    ><span class="soft">Maker</span><EntryField
      {...cell('maker', 'Maker')}
      kind="text"
      value={document.maker}
      size={11}
    /></span
  >
  <span class="item"
    ><span class="soft">Body</span><EntryField
      {...cell('name', 'Name of the body')}
      kind="text"
      value={document.name}
      size={13}
    /></span
  >
  <span class="item"
    ><span class="soft">Mount</span><EntryField
      {...cell('mount', 'Mount')}
      kind="text"
      value={document.mount}
      size={6}
    /></span
  >
  <span class="item"
    ><span class="soft">Firmware</span><EntryField
      {...cell('firmware', 'Firmware')}
      kind="text"
      value={document.firmware}
      size={6}
    /></span
  >
  <span class="item"
    ><span class="soft">Photosites</span><EntryField
      {...cell('photosites[0]', 'Photosites across')}
      kind="number"
      value={document.photosites[0]}
    />×<EntryField
      {...cell('photosites[1]', 'Photosites down')}
      kind="number"
      value={document.photosites[1]}
    /></span
  >
  <span class="item"
    ><span class="soft">Pitch µm</span><EntryField
      {...cell('pitch_um', 'Photosite pitch')}
      kind="number"
      value={document.pitch_um}
    /></span
  >
  <span class="item"
    ><span class="soft">All of the chip</span><EntryField
      {...cell('total_photosites[0]', 'All photosites across')}
      kind="number"
      value={document.total_photosites?.[0]}
      oninput={(value) => setTotal(0, value)}
    />×<EntryField
      {...cell('total_photosites[1]', 'All photosites down')}
      kind="number"
      value={document.total_photosites?.[1]}
      oninput={(value) => setTotal(1, value)}
    /></span
  >
  <span class="item"
    ><span class="soft">Writes MB/s</span><EntryField
      {...cell('write_mb_s', 'Written to the card at most, MB/s')}
      kind="number"
      value={document.write_mb_s}
    /></span
  >
  <span class="item"
    ><span class="soft">Buffer GB</span><EntryField
      {...cell('buffer_gb', 'Buffer, GB')}
      kind="number"
      value={document.buffer_gb}
      size={5}
      placeholder="none"
    /></span
  >
  <span class="item"
    ><span class="soft">{trade.sensitivity}</span><EntryField
      {...list('eis', `${trade.sensitivity} values that can be set`)}
      kind="numbers"
      size={36}
      placeholder="not stated"
    /></span
  >
  <span class="item"
    ><span class="soft">native</span><EntryField
      {...list('base_eis', `Native ${trade.sensitivity} values`)}
      kind="numbers"
      size={11}
      placeholder="not stated"
    /></span
  >
  <span class="item"
    ><span class="soft">usable to {trade.sensitivity}</span><EntryField
      {...cell('highest_ei', `Highest ${trade.sensitivity} that is usable`)}
      kind="number"
      value={document.highest_ei}
      size={6}
      placeholder="not stated"
    /></span
  >
  <span class="item"
    ><span class="soft">ND stops</span><EntryField
      {...list('nd_stops', 'Built-in ND, stops')}
      kind="numbers"
      size={8}
      placeholder="none"
    /></span
  >
  <span class="item"
    ><span class="soft">0 dB is {trade.sensitivity}</span><EntryField
      {...cell('zero_db_ei', `${trade.sensitivity} of a gain of 0 dB`)}
      kind="number"
      value={document.zero_db_ei}
      size={6}
      placeholder="none"
    /></span
  >
  <span class="item"
    ><span class="soft">Card slots</span><EntryField
      {...cell('slots', 'Slots for cards')}
      kind="number"
      value={document.slots}
      size={2}
    />
    {#if Number(document.slots) > 1}
      <Choice
        label="What the slots do"
        options={SLOTS}
        value={document.slot_use ?? 'after'}
        onchange={(use) => onset('slot_use', use)}
      />{/if}</span
  >
  <span class="item"
    ><span class="soft">Weight</span><EntryField
      {...cell('weight_kg', 'Weight of the body')}
      kind="weight"
      unit={trade.unit}
      value={document.weight_kg}
      size={5}
      placeholder="?"
    />{weightUnit(trade.unit)}</span
  >
  <span class="item"
    ><span class="soft">Size</span>{#each ['Width', 'Height', 'Depth'] as side, axis (side)}{axis
        ? '×'
        : ''}<EntryField
        {...cell(`size_mm[${axis}]`, `${side} of the body`)}
        kind="number"
        value={document.size_mm?.[axis]}
        size={4}
        placeholder="?"
        oninput={(value) => setSize(axis, value)}
      />{/each}mm</span
  >
  <label class="item"
    ><input
      type="checkbox"
      checked={document.free_windows}
      onchange={(event) => onset('free_windows', event.currentTarget.checked)}
    /> any window can be set</label
  >
</div>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 1.1rem;
    font-size: 14px;
  }
  input {
    accent-color: var(--accent);
  }
</style>
