<script lang="ts">
  import type { BodyEditor } from '../../lib/body.svelte'
  import * as client from '../../lib/client'
  import { chosenOf, copyOfMode, newFormat, newMode } from '../../lib/rows'
  import type { Origin } from '../../lib/types'
  import BodyFields from '../../parts/documents/BodyFields.svelte'
  import { formatColumns, modeColumns } from '../../parts/documents/bodyColumns'
  import ClaimsPanel from '../../parts/documents/ClaimsPanel.svelte'
  import CropPanel from '../../parts/documents/CropPanel.svelte'
  import MenuPanel from '../../parts/documents/MenuPanel.svelte'
  import OriginStrip from '../../parts/documents/OriginStrip.svelte'
  import { ownersOf, pathWords, withoutMode } from '../../parts/documents/origins'
  import SensorDrawing from '../../parts/drawings/SensorDrawing.svelte'
  import RowSection from '../../parts/grid/RowSection.svelte'
  import DocumentPage from './DocumentPage.svelte'
  import type { DocumentProps } from './documents'

  let { editor, productionId, linked, changes }: DocumentProps<BodyEditor> = $props()

  const PAGES = [
    { value: 'formats', label: 'Scan modes and formats' },
    { value: 'crops', label: 'In-camera crops' },
    { value: 'menu', label: 'In its menus' },
    { value: 'claims', label: 'Do the claims hold?' },
  ]
  const MODE_COLUMNS = modeColumns(() => editor.sheet)
  const FORMAT_COLUMNS = formatColumns(() => editor.sheet)
  let modeKey = $state<string | undefined>(undefined)
  let formatKey = $state<string | undefined>(undefined)
  /** The figure whose origin is shown: the key of its row (none: the body), its field, its name. */
  let figure = $state<{ key: string; field: string; label: string } | null>(null)
  /** What the FDL carries besides: the Bench's delivery before the usual ones, and the squeeze of its lens. */
  let framing = $state.raw<{ aspect: number[]; protect: number; squeeze: number } | null>(null)

  const document = $derived(editor.document)
  const mode = $derived(chosenOf(document.modes, modeKey))
  const modeIndex = $derived(mode ? document.modes.indexOf(mode) : 0)
  const formats = $derived(mode?.formats ?? [])
  const format = $derived(chosenOf(formats, formatKey))
  const owners = $derived(ownersOf(document))
  const owner = $derived(figure ? owners.get(figure.key) : undefined)
  const own = $derived(figure ? (owner?.origins[figure.field] ?? null) : null)
  const originPath = $derived(figure && owner ? `${owner.name}origins.${figure.field}` : 'origin')

  const fault = (path: string) => editor.fault(path)
  const origin = (key: string, field: string) => owners.get(key)?.origins[field]?.kind
  const onset = (path: string, value: unknown) => editor.set(path, value)
  const onfigure = (key: string, field: string, label: string) => (figure = { key, field, label })

  function chooseMode(key: string | undefined) {
    if (key !== modeKey) formatKey = undefined
    modeKey = key
  }

  function setOrigin(value: Origin | null) {
    if (!figure || !owner) {
      editor.set('origin', value ?? { kind: 'claimed', source: '', date: '', firmware: '' })
      return
    }
    const others = Object.entries(owner.origins).filter(([field]) => field !== figure?.field)
    editor.set([...owner.path, 'origins'], {
      ...Object.fromEntries(others),
      ...(value && { [figure.field]: value }),
    })
  }

  async function readDelivery() {
    const [bench, kit] = await Promise.all([client.readBench(productionId), client.readPackage(productionId)])
    const { aspect, protect } = bench.data?.state.delivery ?? {}
    const lenses = kit.data?.lens_sets.flatMap((set) => set.lenses) ?? []
    const squeeze = lenses.find((lens) => lens.id === bench.data?.state.lens_id)?.squeeze ?? 1
    const list = [...new Set([...(aspect ? [aspect] : []), 16 / 9, 9 / 16])]
    framing = { aspect: list, protect: protect ?? 0, squeeze }
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

<DocumentPage
  {editor}
  {productionId}
  what="body"
  of="body"
  {linked}
  {changes}
  pages={PAGES}
  words={(path) => pathWords(document, path)}
  offered={() => client.catalogueChanges(productionId, editor.id)}
  settle={(take, leave) => client.settleChanges(productionId, editor.id, editor.version, take, leave)}
  taken={({ body }) =>
    body
      ? {
          document: body,
          told: `the body has ${body.modes.reduce((n, m) => n + (m.formats?.length ?? 0), 0)} recording formats now.`,
        }
      : null}
  files={{
    heading: 'Recording formats in',
    told: 'One row for each recording format: modes and formats of the same name are changed, others are added.',
    wholes: 'Whole bodies (JSON, ASC FDL) are read beside the list of bodies.',
  }}
  asked={(kind) => (kind.frames ? framing : {})}
  onfiles={readDelivery}
>
  {#snippet fields()}
    <BodyFields
      {document}
      {fault}
      origin={(field) => document.origins[field]?.kind}
      {onset}
      onfigure={(field, label) => onfigure(document.key, field, label)}
    />
  {/snippet}
  {#snippet children(tab)}
    {#if tab === 'formats'}
      <div class="upper">
        {#if editor.sheet}
          <SensorDrawing sheet={editor.sheet} mode={mode?.key} format={format?.key} onchoose={chooseMode} />
        {/if}
        <div class="modes">
          <RowSection
            heading="Scan modes"
            what="scan mode"
            rows={document.modes}
            columns={MODE_COLUMNS}
            path="modes"
            {editor}
            bind:chosen={() => mode?.key, chooseMode}
            make={(rows) => newMode(document.photosites, rows)}
            copy={copyOfMode}
            without={withoutMode}
            {origin}
            {onfigure}
          />
        </div>
      </div>
      {#each editor.sheet?.missing ?? [] as told (told)}<p class="soft">{told}</p>{/each}
      {@render originStrip()}
      {#if mode}
        {#key mode.key}
          <RowSection
            heading="Recording formats of {mode.name}"
            what="recording format"
            rows={formats}
            columns={FORMAT_COLUMNS}
            path="modes[{modeIndex}].formats"
            {editor}
            bind:chosen={formatKey}
            make={newFormat}
            {origin}
            {onfigure}
          />
        {/key}
      {/if}
    {:else if tab === 'crops'}
      {@render originStrip()}
      <CropPanel {document} {fault} {origin} {onset} {onfigure} />
    {:else if tab === 'menu'}
      <MenuPanel {document} {fault} {onset} />
    {:else}
      <ClaimsPanel {document} checked={editor.sheet?.claims} {fault} {onset} />
    {/if}
  {/snippet}
</DocumentPage>

<style>
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
  @media (max-width: 1150px) {
    .upper {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media print {
    .upper {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
