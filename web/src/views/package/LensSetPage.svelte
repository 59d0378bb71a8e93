<script lang="ts">
  import * as client from '../../lib/client'
  import { copyOfLens, newLens, type LensSetEditor } from '../../lib/lenses.svelte'
  import { deleted, inserted, shifted, type RowEdit } from '../../lib/rows'
  import type { CatalogueChange, LensDocument, Origin, Problem } from '../../lib/types'
  import CatalogueChanges from '../../parts/CatalogueChanges.svelte'
  import CircleDrawing from '../../parts/CircleDrawing.svelte'
  import DocumentFiles from '../../parts/DocumentFiles.svelte'
  import GridCell from '../../parts/GridCell.svelte'
  import KeptState from '../../parts/KeptState.svelte'
  import LensDetail from '../../parts/LensDetail.svelte'
  import LensGrid from '../../parts/LensGrid.svelte'
  import NoticeBar from '../../parts/NoticeBar.svelte'
  import OriginStrip from '../../parts/OriginStrip.svelte'
  import RowTools from '../../parts/RowTools.svelte'
  import { rowKeys } from '../../parts/rowKeys'

  interface Props {
    editor: LensSetEditor
    productionId: number
    /** Whether the set was taken from the catalogue, and how many changes wait there. */
    linked: boolean
    changes: number
  }
  let { editor, productionId, linked, changes }: Props = $props()

  const TABS = ['lenses', 'catalogue', 'files'] as const
  let tab = $state<(typeof TABS)[number]>('lenses')
  let chosen = $state<string | undefined>(undefined)
  let figure = $state<{ key: string; field: string; label: string } | null>(null)

  const document = $derived(editor.document)
  const lenses = $derived(document.lenses)
  const index = $derived(
    Math.max(
      0,
      lenses.findIndex((lens) => lens.key === chosen),
    ),
  )
  const lens = $derived(lenses[index])
  const figures = $derived(editor.sheet?.lenses.find((f) => f.key === lens?.key))
  const owner = $derived(lenses.findIndex((l) => l.key === figure?.key))
  const own = $derived(figure ? (lenses[owner]?.origins?.[figure.field] ?? null) : null)
  const fault = (path: string) => editor.fault(path)
  const origin = (key: string, field: string) => lenses.find((l) => l.key === key)?.origins?.[field]?.kind

  function apply(edit: RowEdit<LensDocument>) {
    editor.change({ ...document, lenses: edit.rows })
    chosen = edit.chosen
  }
  const acts = {
    add: () => apply(inserted(lenses, newLens(lenses, lens), lens?.key)),
    duplicate: () => lens && apply(inserted(lenses, copyOfLens(lens, lenses), lens.key)),
    move: (by: number) => apply(shifted(lenses, lens?.key, by)),
    delete: () => apply(deleted(lenses, lens?.key)),
  }

  function setOrigin(value: Origin | null) {
    if (!figure || owner < 0) {
      editor.set('origin', value ?? { kind: 'claimed', source: '', date: '', firmware: '' })
      return
    }
    const before = Object.entries(lenses[owner]?.origins ?? {}).filter(([field]) => field !== figure?.field)
    editor.set(`lenses[${owner}].origins`, {
      ...Object.fromEntries(before),
      ...(value && { [figure.field]: value }),
    })
  }
  const originPath = $derived(figure && owner >= 0 ? `lenses[${owner}].origins.${figure.field}` : 'origin')

  let offered = $state.raw<CatalogueChange[] | null>(null)
  let fileProblem = $state.raw<Problem | null>(null)
  let fileNotes = $state.raw<string[]>([])

  async function showTab(name: (typeof TABS)[number]) {
    tab = name
    if (name === 'catalogue') await lookAtCatalogue()
    if (name === 'files') await editor.settle()
  }
  async function lookAtCatalogue() {
    offered = null
    await editor.settle()
    offered = (await client.lensSetChanges(productionId, editor.id)).data ?? []
  }
  async function settleChanges(take: string[], leave: string[]) {
    await editor.settle()
    const { data, problem } = await client.settleLensSet(productionId, editor.id, editor.version, take, leave)
    if (data) editor.replace(data)
    else editor.problem = problem
    await lookAtCatalogue()
  }
  async function readTable(file: File) {
    fileNotes = []
    const { data, problem } = await client.readLenses(productionId, editor.id, file)
    fileProblem = problem ?? null
    if (!data) return
    editor.change(data.document)
    fileNotes = [`${file.name} is in: the set has ${data.document.lenses.length} lenses now.`]
  }
  const pathWords = (path: string) => {
    const [, i, rest] = /^lenses\[(\d+)\]\.?(.*)$/.exec(path) ?? []
    return i === undefined ? path : `${lenses[Number(i)]?.name ?? ''} ${rest}`.replaceAll('_', ' ')
  }
</script>

<section class="page" data-undo aria-label="Lens set {document.name}">
  <NoticeBar
    what="lens set"
    problem={editor.problem}
    conflict={editor.conflict !== null}
    onresolve={(take) => editor.resolve(take)}
    onundo={null}
  />
  <div class="bar">
    {#each [['maker', 'Maker', 14], ['name', 'Name of the set', 16], ['note', 'Note on the set', 44]] as const as [field, label, size] (field)}
      <span class="item"
        ><span class="soft">{{ maker: 'Maker', name: 'Set', note: 'Note' }[field]}</span><GridCell
          {label}
          kind="text"
          {size}
          value={document[field]}
          fault={fault(field)}
          oninput={(value) => editor.set(field, value)}
          onfocus={() => (figure = null)}
        /></span
      >
    {/each}
  </div>
  <div class="bar">
    <div class="tabs" role="tablist" aria-label="Parts of the lens set">
      {#each TABS as name (name)}
        <button class="knob" role="tab" aria-selected={tab === name} onclick={() => void showTab(name)}
          >{{
            lenses: 'Lenses',
            catalogue: changes ? `Catalogue: ${changes} new` : 'Catalogue',
            files: 'Files',
          }[name]}</button
        >
      {/each}
    </div>
    <KeptState kept={editor.kept} faults={editor.faults} words={pathWords} />
  </div>
  {#if tab === 'lenses'}
    <div class="bar">
      <h2>Lenses <span class="soft">{lenses.length}</span></h2>
      <RowTools
        what="lens"
        chosen={lens !== undefined}
        up={index > 0}
        down={index < lenses.length - 1}
        onadd={acts.add}
        onduplicate={acts.duplicate}
        onmove={acts.move}
        ondelete={acts.delete}
      />
    </div>
    <div class="grid">
      <LensGrid
        {lenses}
        sheet={editor.sheet}
        chosen={lens?.key}
        {fault}
        {origin}
        onset={(path, value) => editor.set(path, value)}
        onchoose={(key) => (chosen = key)}
        onfigure={(key, field, label) => (figure = { key, field, label })}
        onkeydown={(event) => rowKeys(event, acts)}
      />
    </div>
    <OriginStrip
      what="set"
      label={figure?.label ?? `${document.name} as a whole`}
      {own}
      single={figure !== null}
      whole={document.origin}
      fault={(field) => editor.fault(`${originPath}.${field}`)}
      onset={setOrigin}
    />
    {#if lens}
      <div class="lower">
        <CircleDrawing {lens} {figures} windows={editor.sheet?.windows ?? []} />
        <LensDetail
          {lens}
          at="lenses[{index}]"
          {figures}
          {fault}
          {origin}
          onset={(path, value) => editor.set(path, value)}
          onfigure={(key, field, label) => (figure = { key, field, label })}
        />
      </div>
    {/if}
  {:else if tab === 'catalogue'}
    <CatalogueChanges
      what="lens set"
      changes={offered}
      {linked}
      onsettle={(take, leave) => void settleChanges(take, leave)}
    />
  {:else}
    <DocumentFiles
      outs={[
        {
          title: 'The whole set',
          told: 'JSON, schema hextan.lens_set 1',
          href: client.lensFileAddress(productionId, editor.id, 'json'),
        },
        {
          title: 'Its lenses',
          told: 'CSV, one row each',
          href: client.lensFileAddress(productionId, editor.id, 'csv'),
        },
      ]}
      heading="Lenses in"
      template={client.lensTemplateAddress(productionId)}
      told="One row for each lens: those of the same name are changed, others are added."
      wholes="Whole sets (JSON) are read beside the list of sets."
      problem={fileProblem}
      notes={fileNotes}
      ontable={(file) => void readTable(file)}
    />
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
  .bar > :global(.tools) {
    margin-left: auto;
  }
  .item {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
  }
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem;
    font-size: 14px;
  }
  .tabs [aria-selected='true'] {
    background: var(--cell-strong);
    border-color: var(--line-strong);
  }
  h2 {
    font-weight: 500;
  }
  .lower {
    display: grid;
    grid-template-columns: 380px minmax(0, 1fr);
    gap: 14px;
  }
  @media (max-width: 1000px) {
    .lower {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
