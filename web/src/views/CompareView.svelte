<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../lib/client'
  import { ComparisonEditor, comparisonOfBench } from '../lib/compare.svelte'
  import { LETTERS, setupWords } from '../lib/compared'
  import { compareKeys } from '../lib/compareKeys'
  import { pathTo } from '../lib/router.svelte'
  import { freeName, newKey } from '../lib/rows'
  import { Shelf } from '../lib/shelf.svelte'
  import type {
    BenchState,
    CameraMatch,
    CompareColumn,
    ComparisonDocument,
    ComparisonKept,
    CompareView,
    Package,
    Problem,
  } from '../lib/types'
  import { UNITS } from '../lib/units'
  import type { ViewProps } from '../lib/views'
  import { cocChoice } from '../parts/chain/coc'
  import ComparedTable from '../parts/compare/ComparedTable.svelte'
  import ComparePanels from '../parts/compare/ComparePanels.svelte'
  import ComparisonBar from '../parts/compare/ComparisonBar.svelte'
  import ComparisonSettings from '../parts/compare/ComparisonSettings.svelte'
  import MatchOptions from '../parts/compare/MatchOptions.svelte'
  import Segments from '../parts/controls/Segments.svelte'
  import KeptState from '../parts/page/KeptState.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'

  let { productionId, rest }: ViewProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const shelf = new Shelf({
    path: pathTo(id, 'compare'),
    list: () => client.listComparisons(id),
    read: (comparisonId) => client.readComparison(id, comparisonId),
    add: (document: ComparisonDocument) => client.addComparison(id, document),
    remove: (comparisonId, version, removed) => client.removeComparison(id, comparisonId, version, removed),
    edit: (kept: ComparisonKept, onkept) => new ComparisonEditor(id, kept, onkept),
  })
  let equipment = $state.raw<Package | null>(null)
  let bench = $state.raw<BenchState | null>(null)
  let productionName = $state('')
  let unread = $state.raw<Problem | null>(null)
  let matching = $state.raw<{ index: number; match: CameraMatch } | null>(null)
  let told = $state('')

  async function read() {
    void shelf.refresh()
    const asked = [client.readPackage(id), client.readBench(id), client.readProduction(id)] as const
    const [kit, kept, production] = await Promise.all(asked)
    equipment = kit.data ?? null
    bench = kept.data?.state ?? null
    unread = kit.problem ?? kept.problem ?? null
    productionName = production.data?.facts.name ?? ''
  }
  onMount(() => {
    void read()
    return () => shelf.leave()
  })

  const chosen = $derived(Number(rest[0]) || (shelf.rows?.[0]?.id ?? null))
  // The address names the comparison; without a name it is the first. Opening one asks the server.
  $effect(() => void shelf.open(chosen))

  const editor = $derived(shelf.editor)
  const document = $derived(editor?.document ?? null)
  const view = $derived<CompareView | null>(editor?.sheet ?? null)
  // While a column was just added or taken away, the answer still speaks of the ones before.
  const whole = $derived(
    view !== null && document !== null && view.columns.length === document.columns.length,
  )
  const nameOf = (index: number) =>
    document?.columns[index]?.label || `${LETTERS[index]}: ${view?.columns[index]?.body ?? ''}`

  const set = (part: Partial<ComparisonDocument>, kind = '') => {
    if (editor) editor.change({ ...editor.document, ...part }, kind)
  }
  const takenNames = () => (shelf.rows ?? []).map((row) => ({ name: row.document.name }))

  function addColumn() {
    const last = document?.columns.at(-1)
    if (document && last) set({ columns: [...document.columns, { ...last, key: newKey(), label: '' }] })
  }
  async function match(index: number) {
    if (!document) return
    const { data, problem } = await client.matchCamera(id, document, index)
    told = problem?.message ?? ''
    matching = data ? { index, match: data } : null
  }
  /** Another is held against: what was offered to match the last one is so no more. */
  function makeMaster(index: number) {
    matching = null
    set({ master: document?.columns[index]?.key ?? null })
  }
  function setColumns(columns: CompareColumn[]) {
    matching = null
    // A master that is taken out leaves the first to be it.
    const there = columns.some((column) => column.key === document?.master)
    set({ columns, ...(there ? {} : { master: null }) })
  }
  function within(index: number, percent: number) {
    set({ within_percent: percent })
    void match(index)
  }
  async function matchAll() {
    matching = null
    told = (await editor?.matchAll()) ?? ''
  }
  function take(option: CameraMatch['options'][number]) {
    const index = matching?.index
    if (!document || index === undefined) return
    const columns = document.columns.map((c, i) => (i === index ? (option.column as CompareColumn) : c))
    set({ columns, case: 'as_set' })
    matching = null
  }

  const keys = compareKeys(
    (name) => set({ case: name }),
    () => void matchAll(),
  )
</script>

<ViewFrame
  productionId={id}
  {productionName}
  current="compare"
  heading="Compare"
  sheet={document ? { kind: 'compare', which: document.name } : null}
  undo={editor && { steps: editor.steps, undo: () => editor.undo(), redo: () => editor.redo() }}
  {keys}
  what="comparison"
  problem={shelf.problem ?? unread ?? editor?.problem ?? null}
  differences={editor?.differences ?? null}
  onresolve={(way) => editor?.resolve(way)}
  onundo={editor?.steps.back ? () => editor.undo() : null}
  onretry={() => {
    void read()
    editor?.retry()
  }}
  rule={document?.coc ? cocChoice(document.coc) : "the production's rule"}
  waiting={shelf.rows === null || (chosen !== null && !view)}
>
  {#snippet switches()}
    {#if document}<Segments
        label="Unit of distances"
        options={UNITS}
        value={document.unit}
        onchange={(unit) => set({ unit })}
      />{/if}
  {/snippet}
  <ComparisonBar
    rows={shelf.rows ?? []}
    removed={shelf.removed}
    {chosen}
    name={document?.name}
    ready={bench !== null}
    onshow={(row) => void shelf.show(row)}
    onadd={() => bench && void shelf.add(comparisonOfBench(bench, freeName('Comparison', takenNames())))}
    oncopy={() => document && void shelf.add({ ...document, name: freeName(document.name, takenNames()) })}
    onremove={(row, removed) => void shelf.setRemoved(row, removed)}
  >
    {#if editor}<KeptState faults={editor.faults} words={setupWords} />{/if}
  </ComparisonBar>
  {#if shelf.rows?.length === 0}
    <p>
      Nothing is compared yet. <b>New, from the Bench</b> puts the Bench beside the formats that are pinned there,
      each as a full chain that can be changed.
    </p>
  {/if}
  {#if document && view && whole && equipment && editor}
    <ComparisonSettings {document} cases={view.cases} fault={(path) => editor.fault(path)} onchange={set} />
    {#if document.case !== 'as_set'}<p class="soft">
        {LETTERS.slice(0, document.columns.length)
          .filter((_, i) => i !== view.master)
          .join(', ')} show {LETTERS[view.master]}'s lens before their formats, exactly as this case asks;
        what they are set to is kept, and comes back with “as set”.
      </p>{/if}
    {#if told}<p class="warn" role="status">{told}</p>{/if}
    <ComparedTable
      {document}
      {view}
      {equipment}
      faults={editor.faults}
      read={client.readDistance}
      oncolumn={(index, part, kind) => editor.setColumn(index, part, kind)}
      oncolumns={setColumns}
      onadd={addColumn}
      onmatch={(index) => void match(index)}
      onmatchall={() => void matchAll()}
      onmaster={makeMaster}
      matching={matching ? offers : null}
    />
    {#snippet offers()}
      {#if matching}
        {@const { index, match: found } = matching}
        <MatchOptions
          name={nameOf(index)}
          master={LETTERS[view.master] ?? ''}
          match={found}
          within={document.within_percent ?? 10}
          fault={editor.fault('within_percent')}
          ontake={take}
          onwithin={(percent) => within(index, percent)}
          onclose={() => (matching = null)}
        />
      {/if}
    {/snippet}
    <ComparePanels {view} unit={document.unit} {nameOf} />
  {/if}
</ViewFrame>
