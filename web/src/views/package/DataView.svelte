<script lang="ts">
  import { onDestroy } from 'svelte'
  import Choice from '../../parts/controls/Choice.svelte'
  import { withChosen, wordOptions } from '../../lib/options'
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { faultsOf } from '../../lib/faults'
  import { Latest } from '../../lib/latest'
  import { SettingsEditor } from '../../lib/settings.svelte'
  import type { DataAsk, DataTable, Problem } from '../../lib/types'
  import CardsEditor from '../../parts/documents/CardsEditor.svelte'
  import DataTableView from '../../parts/documents/DataTable.svelte'
  import EntryField from '../../parts/fields/EntryField.svelte'
  import SettingField from '../../parts/fields/SettingField.svelte'
  import Begin from '../../parts/page/Begin.svelte'
  import SettingsNotice from '../../parts/page/SettingsNotice.svelte'

  let { productionId, onundoable }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const settings = new SettingsEditor(productionId)
  // The header's undo works on what is shown here.
  $effect(() => onundoable(settings.undo))
  onDestroy(() => {
    settings.close()
    onundoable(null)
  })
  let ask = $state.raw<Required<DataAsk>>({ fps: null, delivery: [3840, 2160], squeeze: 1 })
  let table = $state.raw<DataTable | null>(null)
  let problem = $state.raw<Problem | null>(null)
  const faults = $derived(faultsOf(problem))
  const latest = new Latest(
    () => ask,
    async (now, signal) => {
      const { data, problem: why } = await client.readData(productionId, now, signal)
      if (data) table = data
      problem = why ?? null
    },
  )
  // The table follows what is kept.
  $effect(() => {
    if (settings.kept) latest.want()
  })
  function change(part: Partial<DataAsk>) {
    ask = { ...ask, ...part }
    latest.want()
  }
  const cards = $derived(settings.settings?.cards ?? [])
  const DELIVERIES = [
    '1920 × 1080',
    '2048 × 1080',
    '3840 × 2160',
    '4096 × 2160',
    '3840 × 1607',
    '1080 × 1920',
  ]
</script>

<div class="bar">
  <span class="item"
    ><span class="soft">Rate</span><EntryField
      label="Rate at which the data are counted"
      kind="text"
      value={ask.fps ?? ''}
      placeholder="base"
      fault={faults['fps']}
      oninput={(fps) => change({ fps: fps === '' ? null : String(fps) })}
    /> fps</span
  >
  <span class="item"
    ><span class="soft">Delivered</span>{#each [0, 1] as axis (axis)}{axis ? '×' : ''}<EntryField
        label={axis ? 'Delivered height' : 'Delivered width'}
        kind="number"
        size={5}
        value={ask.delivery[axis]}
        fault={faults[`delivery[${axis}]`]}
        oninput={(n) => change({ delivery: ask.delivery.map((m, i) => (i === axis ? (n as number) : m)) })}
      />{/each}
    <Choice
      label="Usual deliveries"
      options={withChosen(wordOptions(DELIVERIES), ask.delivery.join(' × '), ask.delivery.join(' × '))}
      value={ask.delivery.join(' × ')}
      onchange={(raster) => change({ delivery: raster.split(' × ').map(Number) })}
    /></span
  >
  <span class="item"
    ><span class="soft">Lens squeeze</span><EntryField
      label="Squeeze of the lens"
      kind="number"
      size={4}
      value={ask.squeeze}
      fault={faults['squeeze']}
      oninput={(squeeze) => change({ squeeze: squeeze as number })}
    />×</span
  >
  <SettingField label="A day has" editor={settings} path="minutes_a_day" unit="min of running camera" />
  <CardsEditor editor={settings} />
</div>
<SettingsNotice editor={settings} problem={Object.keys(faults).length ? null : problem} />

{#if table && !table.rows.length}<Begin {productionId} what="This" />
{:else if table}
  <DataTableView rows={table.rows} {cards} />
{/if}

<style>
  .item :global(.cell input) {
    border-bottom-color: var(--line-strong);
  }
</style>
