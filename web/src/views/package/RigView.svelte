<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { newAdapter, newFilter, newMount, RigEditor } from '../../lib/lenses.svelte'
  import { deleted, freeName, inserted, newKey, shifted } from '../../lib/rows'
  import type { AdapterDocument, FilterDocument, MountDocument, Package, Problem } from '../../lib/types'
  import AdapterGrid from '../../parts/AdapterGrid.svelte'
  import Combinations from '../../parts/Combinations.svelte'
  import FilterGrid from '../../parts/FilterGrid.svelte'
  import KeptState from '../../parts/KeptState.svelte'
  import MountGrid from '../../parts/MountGrid.svelte'
  import NoticeBar from '../../parts/NoticeBar.svelte'
  import RowTools from '../../parts/RowTools.svelte'
  import { rowKeys } from '../../parts/rowKeys'

  interface Props {
    productionId: number
    productionName: string
    onundoable: (
      now: { steps: { back: number; forth: number }; undo: () => void; redo: () => void } | null,
    ) => void
  }
  let { productionId, productionName, onundoable }: Props = $props()

  let editor = $state.raw<RigEditor | null>(null)
  let equipment = $state.raw<Package | null>(null)
  let problem = $state.raw<Problem | null>(null)
  let mountKey = $state<string | undefined>(undefined)
  let filterKey = $state<string | undefined>(undefined)
  let adapterKey = $state<string | undefined>(undefined)

  onMount(() => {
    void open()
    return () => {
      editor?.close()
      onundoable(null)
    }
  })
  async function open() {
    const [rig, kit] = await Promise.all([client.readRig(productionId), client.readPackage(productionId)])
    problem = rig.problem ?? kit.problem ?? null
    equipment = kit.data ?? null
    if (rig.data) editor = new RigEditor(productionId, rig.data, () => {})
  }
  // The header's undo works on what is shown here.
  $effect(() => {
    const now = editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })

  const document = $derived(editor?.document)
  const mounts = $derived(document?.mounts ?? [])
  const adapters = $derived(document?.adapters ?? [])
  const filters = $derived(document?.filters ?? [])
  const filter = $derived(filters.find((f) => f.key === filterKey) ?? filters[0])
  const mount = $derived(mounts.find((m) => m.key === mountKey) ?? mounts[0])
  const adapter = $derived(adapters.find((a) => a.key === adapterKey) ?? adapters[0])
  const fault = (path: string) => editor?.fault(path)

  function applyMounts(edit: { rows: MountDocument[]; chosen: string | undefined }) {
    if (document) editor?.change({ ...document, mounts: edit.rows })
    mountKey = edit.chosen
  }
  function applyAdapters(edit: { rows: AdapterDocument[]; chosen: string | undefined }) {
    if (document) editor?.change({ ...document, adapters: edit.rows })
    adapterKey = edit.chosen
  }
  const forMounts = {
    add: () => applyMounts(inserted(mounts, newMount(mounts), mount?.key)),
    duplicate: () =>
      mount &&
      applyMounts(
        inserted(mounts, { ...mount, key: newKey(), name: freeName(mount.name, mounts) }, mount.key),
      ),
    move: (by: number) => applyMounts(shifted(mounts, mount?.key, by)),
    delete: () => applyMounts(deleted(mounts, mount?.key)),
  }
  const forAdapters = {
    add: () => applyAdapters(inserted(adapters, newAdapter(adapters, mounts), adapter?.key)),
    duplicate: () =>
      adapter &&
      applyAdapters(
        inserted(
          adapters,
          { ...adapter, key: newKey(), name: freeName(adapter.name, adapters) },
          adapter.key,
        ),
      ),
    move: (by: number) => applyAdapters(shifted(adapters, adapter?.key, by)),
    delete: () => applyAdapters(deleted(adapters, adapter?.key)),
  }
  function applyFilters(edit: { rows: FilterDocument[]; chosen: string | undefined }) {
    if (document) editor?.change({ ...document, filters: edit.rows })
    filterKey = edit.chosen
  }
  const forFilters = {
    add: () => applyFilters(inserted(filters, newFilter(filters), filter?.key)),
    duplicate: () =>
      filter &&
      applyFilters(
        inserted(filters, { ...filter, key: newKey(), name: freeName(filter.name, filters) }, filter.key),
      ),
    move: (by: number) => applyFilters(shifted(filters, filter?.key, by)),
    delete: () => applyFilters(deleted(filters, filter?.key)),
  }
  /** Why a file was refused. */
  let refused = $state.raw<Problem | null>(null)
  async function readFile(input: HTMLInputElement) {
    const [file] = input.files ?? []
    input.value = ''
    if (!file) return
    await editor?.settle()
    const { data, problem: why } = await client.readRigFile(productionId, file)
    refused = why ?? null
    if (data) editor?.change(data.document)
  }
  const words = (path: string) => {
    const [, rows, i, rest] = /^(mounts|adapters|filters)\[(\d+)\]\.?(.*)$/.exec(path) ?? []
    if (i === undefined) return path
    const row = { mounts, adapters, filters }[rows as 'mounts' | 'adapters' | 'filters'][Number(i)]
    return `${row?.name ?? ''} ${rest}`.replaceAll('_', ' ')
  }
</script>

<svelte:head><title>{productionName}: mounts and adapters – Hextan</title></svelte:head>

<section class="page" data-undo aria-label="Mounts and adapters">
  <NoticeBar
    what="list of mounts and adapters"
    problem={editor?.problem ?? problem}
    conflict={editor?.conflict != null}
    onresolve={(take) => editor?.resolve(take)}
    onundo={null}
  />
  {#if editor && document}
    <div class="bar">
      <h2>Mounts <span class="soft">{mounts.length}</span></h2>
      <RowTools
        what="mount"
        chosen={mount !== undefined}
        up={mount !== undefined && mounts[0] !== mount}
        down={mount !== undefined && mounts.at(-1) !== mount}
        onadd={forMounts.add}
        onduplicate={forMounts.duplicate}
        onmove={forMounts.move}
        ondelete={forMounts.delete}
      />
      <span class="files">
        <a href={client.rigFileAddress(productionId)} download>Mounts and adapters as a file</a>
        <label class="knob"
          >From a file<input
            class="sr-only"
            type="file"
            accept=".json,application/json"
            onchange={(event) => void readFile(event.currentTarget)}
          /></label
        >
      </span>
      <KeptState kept={editor.kept} faults={editor.faults} {words} />
    </div>
    {#if refused}
      <div class="fault" role="alert">
        {#each refused.faults as fault, i (i)}<p><strong>{fault.field}</strong> {fault.rule}</p>{:else}<p>
            {refused.message}
          </p>{/each}
      </div>
    {/if}
    <MountGrid
      {mounts}
      chosen={mount?.key}
      {fault}
      onset={(path, value) => editor?.set(path, value)}
      onchoose={(key) => (mountKey = key)}
      onkeydown={(event) => rowKeys(event, forMounts)}
    />
    <div class="bar">
      <h2>Adapters <span class="soft">{adapters.length}</span></h2>
      <RowTools
        what="adapter"
        chosen={adapter !== undefined}
        up={adapter !== undefined && adapters[0] !== adapter}
        down={adapter !== undefined && adapters.at(-1) !== adapter}
        onadd={forAdapters.add}
        onduplicate={forAdapters.duplicate}
        onmove={forAdapters.move}
        ondelete={forAdapters.delete}
      />
    </div>
    <div class="grid">
      <AdapterGrid
        {adapters}
        mounts={mounts.map((m) => m.name)}
        notes={editor.sheet?.notes ?? {}}
        chosen={adapter?.key}
        {fault}
        onset={(path, value) => editor?.set(path, value)}
        onchoose={(key) => (adapterKey = key)}
        onkeydown={(event) => rowKeys(event, forAdapters)}
      />
    </div>
    <div class="bar">
      <h2>ND filters <span class="soft">{filters.length}</span></h2>
      <RowTools
        what="filter"
        chosen={filter !== undefined}
        up={filter !== undefined && filters[0] !== filter}
        down={filter !== undefined && filters.at(-1) !== filter}
        onadd={forFilters.add}
        onduplicate={forFilters.duplicate}
        onmove={forFilters.move}
        ondelete={forFilters.delete}
      />
      <span class="soft">0.3 of density is one stop; an ND4 takes two. Up to three stand before a lens.</span>
    </div>
    <FilterGrid
      {filters}
      markings={editor.sheet?.filters ?? {}}
      chosen={filter?.key}
      {fault}
      onset={(path, value) => editor?.set(path, value)}
      onchoose={(key) => (filterKey = key)}
      onkeydown={(event) => rowKeys(event, forFilters)}
    />
    {#if equipment && editor.sheet}
      <Combinations package={equipment} combinations={editor.sheet.combinations} />
    {/if}
  {/if}
</section>

<style>
  .page {
    display: grid;
    gap: 7px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1rem;
  }
  h2,
  strong {
    font-weight: 500;
  }
  .files {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.8rem;
    font-size: 14px;
  }
  a {
    color: var(--light);
    text-decoration: underline;
  }
  .knob:focus-within {
    outline: 2px solid var(--accent);
  }
</style>
