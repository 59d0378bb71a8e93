<script lang="ts">
  import type { BodyEditor } from '../../lib/body.svelte'
  import * as client from '../../lib/client'
  import { setAt } from '../../lib/paths'
  import {
    copyOfFormat,
    copyOfMode,
    deleted,
    inserted,
    newFormat,
    newMode,
    shifted,
    type RowEdit,
  } from '../../lib/rows'
  import type { CatalogueChange, FormatDocument, ModeDocument, Origin, Problem } from '../../lib/types'
  import BodyFields from '../../parts/BodyFields.svelte'
  import CatalogueChanges from '../../parts/CatalogueChanges.svelte'
  import ClaimsPanel from '../../parts/ClaimsPanel.svelte'
  import CropPanel from '../../parts/CropPanel.svelte'
  import DocumentFiles from '../../parts/DocumentFiles.svelte'
  import FormatGrid from '../../parts/FormatGrid.svelte'
  import KeptState from '../../parts/KeptState.svelte'
  import ModeGrid from '../../parts/ModeGrid.svelte'
  import NoticeBar from '../../parts/NoticeBar.svelte'
  import OriginStrip from '../../parts/OriginStrip.svelte'
  import RowTools from '../../parts/RowTools.svelte'
  import SensorDrawing from '../../parts/SensorDrawing.svelte'
  import { ownersOf, pathWords, withoutMode } from '../../parts/origins'
  import { rowKeys } from '../../parts/rowKeys'

  interface Props {
    editor: BodyEditor
    productionId: number
    /** Whether the body was taken from the catalogue, and how many changes wait there. */
    linked: boolean
    changes: number
  }
  let { editor, productionId, linked, changes }: Props = $props()

  const TABS = ['formats', 'crops', 'claims', 'catalogue', 'files'] as const
  let tab = $state<(typeof TABS)[number]>('formats')
  let modeKey = $state<string | undefined>(undefined)
  let formatKey = $state<string | undefined>(undefined)
  /** The figure whose origin is shown: the key of its row (none: the body), its field, its name. */
  let figure = $state<{ key: string; field: string; label: string } | null>(null)

  const document = $derived(editor.document)
  const modeIndex = $derived(
    Math.max(
      0,
      document.modes.findIndex((m) => m.key === modeKey),
    ),
  )
  const mode = $derived(document.modes[modeIndex])
  const formats = $derived(mode?.formats ?? [])
  const format = $derived(formats.find((f) => f.key === formatKey) ?? formats[0])
  const owners = $derived(ownersOf(document))
  const owner = $derived(figure ? owners.get(figure.key) : undefined)
  const own = $derived(figure ? (owner?.origins[figure.field] ?? null) : null)

  const fault = (path: string) => {
    const exact = editor.fault(path)
    if (exact) return exact
    // Rates are a list in one cell.
    return path.endsWith('.rates')
      ? Object.entries(editor.faults).find(([at]) => at.startsWith(`${path}[`))?.[1]
      : undefined
  }
  const origin = (key: string, field: string) => owners.get(key)?.origins[field]?.kind

  function setOrigin(value: Origin | null) {
    if (!figure || !owner) {
      editor.set('origin', value ?? { kind: 'claimed', source: '', date: '', firmware: '' })
      return
    }
    const origins = Object.fromEntries(
      Object.entries(owner.origins).filter(([field]) => field !== figure?.field),
    )
    if (value) origins[figure.field] = value
    editor.set([...owner.path, 'origins'], origins)
  }
  const originPath = $derived(figure && owner ? `${owner.name}origins.${figure.field}` : 'origin')

  function applyModes(edit: RowEdit<ModeDocument>) {
    editor.change({ ...document, modes: edit.rows })
    modeKey = edit.chosen
  }
  function applyFormats(edit: RowEdit<FormatDocument>) {
    editor.change(setAt(document, ['modes', modeIndex, 'formats'], edit.rows))
    formatKey = edit.chosen
  }
  const forModes = {
    add: () => applyModes(inserted(document.modes, newMode(document.photosites, document.modes), mode?.key)),
    duplicate: () => mode && applyModes(inserted(document.modes, copyOfMode(mode, document.modes), mode.key)),
    move: (by: number) => applyModes(shifted(document.modes, mode?.key, by)),
    delete: () => {
      if (!mode?.key) return
      const { rows, chosen } = deleted(document.modes, mode.key)
      editor.change(withoutMode({ ...document, modes: rows }, mode.key))
      modeKey = chosen
    },
  }
  const forFormats = {
    add: () => mode && applyFormats(inserted(formats, newFormat(formats), format?.key)),
    duplicate: () => format && applyFormats(inserted(formats, copyOfFormat(format, formats), format.key)),
    move: (by: number) => applyFormats(shifted(formats, format?.key, by)),
    delete: () => applyFormats(deleted(formats, format?.key)),
  }

  let offered = $state.raw<CatalogueChange[] | null>(null)
  let fileProblem = $state.raw<Problem | null>(null)
  let fileNotes = $state.raw<string[]>([])
  /** What the FDL carries besides; null until it is known. */
  let aspects = $state.raw<string | null>(null)

  async function showTab(name: (typeof TABS)[number]) {
    tab = name
    if (name === 'catalogue') await lookAtCatalogue()
    if (name === 'files') {
      await editor.settle()
      await readDelivery()
    }
  }

  async function lookAtCatalogue() {
    offered = null
    await editor.settle()
    offered = (await client.catalogueChanges(productionId, editor.id)).data ?? []
  }

  async function settleChanges(take: string[], leave: string[]) {
    await editor.settle()
    const { data, problem } = await client.settleChanges(productionId, editor.id, editor.version, take, leave)
    if (data) editor.replace(data)
    else editor.problem = problem
    await lookAtCatalogue()
  }

  /** The FDL carries the Bench's delivery before the usual ones, and the squeeze of its lens. */
  async function readDelivery() {
    const [bench, kit] = await Promise.all([client.readBench(productionId), client.readPackage(productionId)])
    const { aspect, protect } = bench.data?.state.delivery ?? {}
    const lenses = kit.data?.lens_sets.flatMap((set) => set.lenses) ?? []
    const squeeze = lenses.find((lens) => lens.id === bench.data?.state.lens_id)?.squeeze ?? 1
    const list = [...new Set([...(aspect ? [aspect] : []), 16 / 9, 9 / 16])]
    aspects = `?${list.map((a) => `aspect=${a}`).join('&')}&protect=${protect ?? 0}&squeeze=${squeeze}`
  }

  async function readFormats(file: File) {
    fileNotes = []
    const { data, problem } = await client.readFormats(productionId, editor.id, file)
    fileProblem = problem ?? null
    if (!data) return
    editor.change(data.document)
    const count = data.document.modes.reduce((n, m) => n + (m.formats?.length ?? 0), 0)
    fileNotes = [`${file.name} is in: the body has ${count} recording formats now.`]
  }
</script>

{#snippet originStrip()}
  <OriginStrip
    label={figure?.label ?? `${document.name} as a whole`}
    {own}
    single={figure !== null}
    whole={document.origin}
    fault={(field) => editor.fault(`${originPath}.${field}`)}
    onset={setOrigin}
  />
{/snippet}

<section class="page" data-undo aria-label="Body {document.name}">
  <NoticeBar
    what="body"
    problem={editor.problem}
    conflict={editor.conflict !== null}
    onresolve={(take) => editor.resolve(take)}
    onundo={null}
  />
  <BodyFields
    {document}
    {fault}
    origin={(field) => document.origins[field]?.kind}
    onset={(path, value) => editor.set(path, value)}
    onfigure={(field, label) => (figure = { key: document.key, field, label })}
  />
  <div class="bar">
    <div class="tabs" role="tablist" aria-label="Parts of the body">
      {#each TABS as name (name)}
        <button class="knob" role="tab" aria-selected={tab === name} onclick={() => void showTab(name)}
          >{{
            formats: 'Scan modes and formats',
            crops: 'In-camera crops',
            claims: 'Do the claims hold?',
            catalogue: changes ? `Catalogue: ${changes} new` : 'Catalogue',
            files: 'Files',
          }[name]}</button
        >
      {/each}
    </div>
    <KeptState kept={editor.kept} faults={editor.faults} words={(path) => pathWords(document, path)} />
  </div>
  {#if tab === 'formats'}
    <div class="upper">
      {#if editor.sheet}
        <SensorDrawing
          sheet={editor.sheet}
          mode={mode?.key}
          format={format?.key}
          onchoose={(key) => {
            modeKey = key
            formatKey = undefined
          }}
        />
      {/if}
      <div class="modes">
        <div class="below">
          <h2>Scan modes <span class="soft">{document.modes.length}</span></h2>
          <RowTools
            what="scan mode"
            chosen={mode !== undefined}
            up={modeIndex > 0}
            down={modeIndex < document.modes.length - 1}
            onadd={forModes.add}
            onduplicate={forModes.duplicate}
            onmove={forModes.move}
            ondelete={forModes.delete}
          />
        </div>
        <div class="grid">
          <ModeGrid
            modes={document.modes}
            sheet={editor.sheet}
            chosen={mode?.key}
            {fault}
            {origin}
            onset={(path, value) => editor.set(path, value)}
            onchoose={(key) => {
              if (modeKey !== key) formatKey = undefined
              modeKey = key
            }}
            onfigure={(key, field, label) => (figure = { key, field, label })}
            onkeydown={(event) => rowKeys(event, forModes)}
          />
        </div>
      </div>
    </div>
    {@render originStrip()}
    {#if mode}
      <div class="below">
        <h2>Recording formats of {mode.name} <span class="soft">{formats.length}</span></h2>
        <RowTools
          what="recording format"
          chosen={format !== undefined}
          up={format !== undefined && formats[0] !== format}
          down={format !== undefined && formats.at(-1) !== format}
          onadd={forFormats.add}
          onduplicate={forFormats.duplicate}
          onmove={forFormats.move}
          ondelete={forFormats.delete}
        />
      </div>
      <div class="grid">
        <FormatGrid
          {formats}
          path="modes[{modeIndex}]"
          sheet={editor.sheet}
          chosen={format?.key}
          {fault}
          {origin}
          onset={(path, value) => editor.set(path, value)}
          onchoose={(key) => (formatKey = key)}
          onfigure={(key, field, label) => (figure = { key, field, label })}
          onkeydown={(event) => rowKeys(event, forFormats)}
        />
      </div>
    {/if}
  {:else if tab === 'crops'}
    {@render originStrip()}
    <div class="tab">
      <CropPanel
        {document}
        {fault}
        {origin}
        onset={(path, value) => editor.set(path, value)}
        onfigure={(key, field, label) => (figure = { key, field, label })}
      />
    </div>
  {:else if tab === 'claims'}
    <ClaimsPanel
      {document}
      checked={editor.sheet?.claims}
      {fault}
      onset={(path, value) => editor.set(path, value)}
    />
  {:else if tab === 'catalogue'}
    <div class="tab">
      <CatalogueChanges
        changes={offered}
        {linked}
        onsettle={(take, leave) => void settleChanges(take, leave)}
      />
    </div>
  {:else}
    <DocumentFiles
      outs={[
        {
          title: 'The whole body',
          told: 'JSON, schema hextan.body 1',
          href: client.fileAddress(productionId, editor.id, 'json'),
        },
        {
          title: 'Its recording formats',
          told: 'CSV, one row each',
          href: client.fileAddress(productionId, editor.id, 'csv'),
        },
        {
          title: 'Canvases and framing',
          told: `ASC FDL 2.0: each recording format a canvas, the Bench's delivery and 16:9, 9:16 as framing intents.
            Rates, codecs and timing stand in keys that other programs pass over; crops, claims and origins are not in it.`,
          href: aspects && client.fileAddress(productionId, editor.id, 'fdl', aspects),
        },
      ]}
      heading="Recording formats in"
      template={client.templateAddress(productionId)}
      told="One row for each recording format: modes and formats of the same name are changed, others are added."
      wholes="Whole bodies (JSON, ASC FDL) are read beside the list of bodies."
      problem={fileProblem}
      notes={fileNotes}
      ontable={(file) => void readFormats(file)}
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
  .bar,
  .below {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1rem;
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
  .upper {
    display: grid;
    grid-template-columns: 312px minmax(0, 1fr);
    gap: 14px;
  }
  .modes {
    display: grid;
    gap: 4px;
    align-content: start;
    min-width: 0;
  }
  h2 {
    font-weight: 500;
  }
  .below > :global(.tools) {
    margin-left: auto;
  }
  @media (max-width: 1150px) {
    .upper {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
