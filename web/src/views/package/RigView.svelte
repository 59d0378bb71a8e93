<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { newAdapter, newFilter, newMount, newPair, RigEditor } from '../../lib/lenses.svelte'
  import type { AdapterDocument, MountDocument, Package, Problem, RigDocument } from '../../lib/types'
  import type { SectionProps } from '../../lib/views'
  import Choice from '../../parts/controls/Choice.svelte'
  import Combinations from '../../parts/documents/Combinations.svelte'
  import FlangeDrawing from '../../parts/documents/FlangeDrawing.svelte'
  import { adapterColumns, filterColumns, mountColumns, pairColumns } from '../../parts/documents/rigColumns'
  import RowSection from '../../parts/grid/RowSection.svelte'
  import KeptState from '../../parts/page/KeptState.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  let { productionId, shelfId, isShelf, onundoable }: SectionProps = $props()

  let editor = $state.raw<RigEditor | null>(null)
  let equipment = $state.raw<Package | null>(null)
  let problem = $state.raw<Problem | null>(null)
  /** Why a file was refused. */
  let refused = $state.raw<Problem | null>(null)
  /** What can be taken from the catalogue. */
  let shelf = $state.raw<RigDocument | null>(null)
  let mountKey = $state<string | undefined>(undefined)
  let pairKey = $state<string | undefined>(undefined)
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
    if (!isShelf) void client.readRig(shelfId).then(({ data }) => (shelf = data?.document ?? null))
    if (rig.data) editor = new RigEditor(productionId, rig.data, () => {})
  }
  // The header's undo works on what is shown here.
  $effect(() => {
    const now = editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })

  const mounts = $derived(editor?.document.mounts ?? [])
  const adapters = $derived(editor?.document.adapters ?? [])
  const filters = $derived(editor?.document.filters ?? [])
  const pairs = $derived(editor?.document.pairs ?? [])
  const glass = $derived(
    (equipment?.lens_sets ?? []).flatMap((set) => [set.name, ...set.lenses.map((lens) => lens.name)]),
  )
  const bodies = $derived((equipment?.bodies ?? []).map((body) => body.name))
  const KINDS = { mounts: 'Mounts', adapters: 'Adapters', filters: 'ND filters' } as const
  const KIND_NAMES = ['mounts', 'adapters', 'filters'] as const
  /** Of the catalogue, what is not here yet. */
  const offered = $derived(
    KIND_NAMES.flatMap((kind) =>
      (shelf?.[kind] ?? [])
        .filter((row) => !editor?.document[kind].some((here) => here.name === row.name))
        .map((row) => ({ value: `${kind} ${row.key}`, label: row.name, group: KINDS[kind] })),
    ),
  )
  function take(chosen: string) {
    const kind = KIND_NAMES.find((name) => chosen.startsWith(`${name} `))
    const row = kind && shelf?.[kind].find((r) => chosen === `${kind} ${r.key}`)
    if (kind && row) editor?.set(kind, [...editor.document[kind], row])
  }
  const longest = $derived(Math.max(...mounts.map((m) => Number(m.flange_mm) || 0), 20))
  const fault = (path: string) => editor?.fault(path)
  const whole = (adapter: AdapterDocument) => fault(`adapters[${adapters.indexOf(adapter)}]`)

  async function readFile(input: HTMLInputElement) {
    const [file] = input.files ?? []
    input.value = ''
    if (!file) return
    await editor?.settle()
    const { data, problem: why } = await client.readFile(productionId, 'rig.json', file)
    refused = why ?? null
    if (data?.rig) editor?.change(data.rig)
  }
  const words = (path: string) => {
    const [, rows, i, rest] = /^(mounts|adapters|filters|pairs)\[(\d+)\]\.?(.*)$/.exec(path) ?? []
    if (i === undefined) return path
    const row = { mounts, adapters, filters, pairs }[rows as 'mounts' | 'adapters' | 'filters' | 'pairs'][
      Number(i)
    ]
    return `${row?.name ?? ''} ${rest}`.replaceAll('_', ' ')
  }
</script>

{#snippet flange(mount: MountDocument)}<FlangeDrawing {mount} {longest} />{/snippet}

<section class="page" data-undo aria-label="Mounts and adapters">
  <NoticeBar
    what="list of mounts and adapters"
    problem={editor?.problem ?? problem}
    differences={editor?.differences ?? null}
    onresolve={(take) => editor?.resolve(take)}
    onundo={null}
  />
  {#if editor}
    <div class="bar">
      <a class="link" href={client.fileAddress(productionId, 'rig.json', {})} download
        >Mounts and adapters as a file</a
      >
      <label class="knob"
        >From a file<input
          class="sr-only"
          type="file"
          accept=".json,application/json"
          onchange={(event) => void readFile(event.currentTarget)}
        /></label
      >
      {#if offered.length}
        <Choice
          label="Take a mount, an adapter or a filter from the catalogue"
          options={offered}
          value={null}
          placeholder="From the catalogue…"
          search
          onchange={take}
        />
      {/if}
      <KeptState faults={editor.faults} {words} />
    </div>
    {#if refused}
      <div class="fault" role="alert">
        {#each refused.faults as fault, i (i)}<p><strong>{fault.field}</strong> {fault.rule}</p>{:else}<p>
            {refused.message}
          </p>{/each}
      </div>
    {/if}
    <RowSection
      heading="Mounts"
      what="mount"
      rows={mounts}
      columns={mountColumns(flange)}
      path="mounts"
      {editor}
      bind:chosen={mountKey}
      make={newMount}
    />
    <RowSection
      heading="Adapters"
      what="adapter"
      rows={adapters}
      columns={adapterColumns(
        mounts.map((m) => m.name),
        editor.sheet,
        whole,
      )}
      path="adapters"
      {editor}
      bind:chosen={adapterKey}
      make={(rows) => newAdapter(rows, mounts)}
    />
    <RowSection
      heading="ND filters"
      what="filter"
      rows={filters}
      columns={filterColumns(editor.sheet)}
      path="filters"
      {editor}
      bind:chosen={filterKey}
      make={newFilter}
    >
      {#snippet beside()}<span class="soft"
          >0.3 of density is one stop; an ND4 takes two. Up to three stand before a lens.</span
        >{/snippet}
    </RowSection>
    {#if equipment?.bodies.length && glass.length}
      <RowSection
        heading="Notes on a lens and a body"
        what="note"
        rows={pairs}
        columns={pairColumns(glass, bodies, editor.sheet)}
        path="pairs"
        {editor}
        bind:chosen={pairKey}
        make={() => newPair(glass[0] ?? '', bodies[0] ?? '')}
      >
        {#snippet beside()}<span class="soft"
            >Corners, a focus scale that is off: told wherever that lens stands on that body.</span
          >{/snippet}
      </RowSection>
    {/if}
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
  .knob:focus-within {
    outline: 2px solid var(--accent);
  }
</style>
