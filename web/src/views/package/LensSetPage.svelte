<script lang="ts">
  import * as client from '../../lib/client'
  import { copyOfLens, newLens, type LensSetEditor } from '../../lib/lenses.svelte'
  import { chosenOf } from '../../lib/rows'
  import type { Origin } from '../../lib/types'
  import LensDetail from '../../parts/documents/LensDetail.svelte'
  import { lensColumns } from '../../parts/documents/lensColumns'
  import OriginStrip from '../../parts/documents/OriginStrip.svelte'
  import CircleDrawing from '../../parts/drawings/CircleDrawing.svelte'
  import EntryField from '../../parts/fields/EntryField.svelte'
  import RowSection from '../../parts/grid/RowSection.svelte'
  import DocumentPage from './DocumentPage.svelte'
  import type { DocumentProps } from './documents'

  let { editor, productionId, linked, changes }: DocumentProps<LensSetEditor> = $props()

  const FIELDS = [
    ['maker', 'Maker', 'Maker', 14],
    ['name', 'Set', 'Name of the set', 16],
    ['note', 'Note', 'Note on the set', 44],
  ] as const
  const COLUMNS = lensColumns(() => editor.sheet)
  let chosen = $state<string | undefined>(undefined)
  let figure = $state<{ key: string; field: string; label: string } | null>(null)

  const document = $derived(editor.document)
  const lenses = $derived(document.lenses)
  const lens = $derived(chosenOf(lenses, chosen))
  const figures = $derived(editor.sheet?.lenses.find((f) => f.key === lens?.key))
  const owner = $derived(lenses.findIndex((l) => l.key === figure?.key))
  const own = $derived(figure ? (lenses[owner]?.origins?.[figure.field] ?? null) : null)
  const originPath = $derived(figure && owner >= 0 ? `lenses[${owner}].origins.${figure.field}` : 'origin')
  const fault = (path: string) => editor.fault(path)
  const origin = (key: string, field: string) => lenses.find((l) => l.key === key)?.origins?.[field]?.kind
  const onfigure = (key: string, field: string, label: string) => (figure = { key, field, label })

  function setOrigin(value: Origin | null) {
    if (!figure || owner < 0) {
      editor.set('origin', value ?? { kind: 'claimed', source: '', date: '', firmware: '' })
      return
    }
    const others = Object.entries(lenses[owner]?.origins ?? {}).filter(([field]) => field !== figure?.field)
    editor.set(`lenses[${owner}].origins`, {
      ...Object.fromEntries(others),
      ...(value && { [figure.field]: value }),
    })
  }
  const words = (path: string) => {
    const [, i, rest] = /^lenses\[(\d+)\]\.?(.*)$/.exec(path) ?? []
    return i === undefined ? path : `${lenses[Number(i)]?.name ?? ''} ${rest}`.replaceAll('_', ' ')
  }
</script>

<DocumentPage
  {editor}
  {productionId}
  what="lens set"
  of="lens_set"
  {linked}
  {changes}
  pages={[{ value: 'lenses', label: 'Lenses' }]}
  {words}
  offered={() => client.lensSetChanges(productionId, editor.id)}
  settle={(take, leave) => client.settleLensSet(productionId, editor.id, editor.version, take, leave)}
  taken={({ lens_set: set }) =>
    set ? { document: set, told: `the set has ${set.lenses.length} lenses now.` } : null}
  files={{
    heading: 'Lenses in',
    told: 'One row for each lens: those of the same name are changed, others are added.',
    wholes: 'Whole sets (JSON) are read beside the list of sets.',
  }}
>
  {#snippet fields()}
    <div class="fields">
      {#each FIELDS as [field, title, label, size] (field)}
        <span class="item"
          ><span class="soft">{title}</span><EntryField
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
  {/snippet}
  <RowSection
    heading="Lenses"
    what="lens"
    rows={lenses}
    columns={COLUMNS}
    path="lenses"
    {editor}
    bind:chosen
    make={newLens}
    copy={copyOfLens}
    {origin}
    {onfigure}
  />
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
        at="lenses[{lenses.indexOf(lens)}]"
        {figures}
        {fault}
        {origin}
        onset={(path, value) => editor.set(path, value)}
        {onfigure}
      />
    </div>
  {/if}
</DocumentPage>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1rem;
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
