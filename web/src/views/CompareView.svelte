<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../lib/client'
  import { ComparisonEditor, comparisonOfBench } from '../lib/compare.svelte'
  import { share } from '../lib/format'
  import { comparedText, differenceText, setupWords } from '../lib/compared'
  import { modeSwitch } from '../lib/mode.svelte'
  import { freeName, newKey } from '../lib/rows'
  import { Shelf } from '../lib/shelf.svelte'
  import { runShortcut, type Shortcut } from '../lib/shortcuts'
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
  import CompareChain from '../parts/CompareChain.svelte'
  import { COC_CHOICES, cocChoice } from '../parts/coc'
  import FinderDrawing from '../parts/FinderDrawing.svelte'
  import HelpDialog from '../parts/HelpDialog.svelte'
  import KeptState from '../parts/KeptState.svelte'
  import { ASPECTS } from '../parts/links'
  import MatchOptions from '../parts/MatchOptions.svelte'
  import NoticeBar from '../parts/NoticeBar.svelte'
  import NumberField from '../parts/NumberField.svelte'
  import PageHeader from '../parts/PageHeader.svelte'
  import RulesPanel from '../parts/RulesPanel.svelte'
  import WhyPanel from '../parts/WhyPanel.svelte'

  interface Props {
    productionId: number
    rest: string[]
  }
  let { productionId, rest }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const shelf = new Shelf({
    path: `/p/${id}/compare`,
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
  let help = $state(false)
  let matching = $state.raw<{ index: number; match: CameraMatch } | null>(null)
  let told = $state('')

  onMount(() => {
    void shelf.refresh()
    void Promise.all([client.readPackage(id), client.readBench(id), client.listProductions()]).then(
      ([kit, kept, productions]) => {
        equipment = kit.data ?? null
        bench = kept.data?.state ?? null
        unread = kit.problem ?? kept.problem ?? null
        productionName = productions.data?.find((p) => p.id === id)?.name ?? ''
      },
    )
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
  const LETTERS = ['A', 'B', 'C', 'D']
  const nameOf = (index: number) =>
    document?.columns[index]?.label || `${LETTERS[index]}: ${view?.columns[index]?.body ?? ''}`

  const set = (part: Partial<ComparisonDocument>, kind = '') => {
    if (editor) editor.change({ ...editor.document, ...part }, kind)
  }
  const setColumn = (index: number, part: Partial<CompareColumn>, kind = '') =>
    editor?.setColumn(index, part, kind)

  function addFromBench() {
    if (!bench) return
    const names = (shelf.rows ?? []).map((row) => ({ name: row.document.name }))
    void shelf.add(comparisonOfBench(bench, freeName('Comparison', names)))
  }
  function copy() {
    if (!document) return
    const names = (shelf.rows ?? []).map((row) => ({ name: row.document.name }))
    void shelf.add({ ...document, name: freeName(document.name, names) })
  }
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
  /** Every other camera takes its nearest match, one after another. */
  async function matchAll() {
    if (!document) return
    let columns = document.columns
    const left: string[] = []
    for (let index = 1; index < columns.length; index++) {
      const { data, problem } = await client.matchCamera(id, { ...document, columns }, index)
      const best = data?.options[0]
      if (best) columns = columns.map((c, i) => (i === index ? (best.column as CompareColumn) : c))
      left.push(`${LETTERS[index]}: ${best?.text ?? data?.advice[0] ?? problem?.message ?? ''}`)
    }
    matching = null
    told = left.join(' ')
    set({ columns, case: 'as_set' })
  }

  const shortcuts: Shortcut[] = [
    { keys: '?', on: ['?'], does: 'These keys', run: () => (help = true) },
    { keys: 'n', on: ['n'], does: 'Night or day', run: () => modeSwitch.toggle() },
    ...(['as_set', 'same_place', 'moved', 'other_lens'] as const).map((name, i) => ({
      keys: String(i + 1),
      on: [String(i + 1)],
      does:
        ['As set', 'Same lens, same place', 'Same framing, by moving', 'Same framing, by another lens'][i] ??
        '',
      run: () => set({ case: name }),
    })),
    { keys: 'm', on: ['m'], does: 'Match all to the first', run: () => void matchAll() },
    { keys: 'Ctrl Z', on: ['ctrl+z'], does: 'Undo', run: () => editor?.undo() },
    { keys: 'Ctrl Shift Z', on: ['ctrl+shift+z', 'ctrl+y'], does: 'Redo', run: () => editor?.redo() },
  ]
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts)} />
<svelte:head><title>{productionName}: compare – Hextan</title></svelte:head>

<PageHeader
  productionId={id}
  {productionName}
  current="compare"
  steps={editor?.steps ?? null}
  onundo={() => editor?.undo()}
  onredo={() => editor?.redo()}
  onhelp={() => (help = true)}
/>

<main>
  <div class="bar no-print">
    <label
      ><span class="soft">Comparison</span>
      <select
        class="set"
        aria-label="Comparison"
        value={String(chosen ?? '')}
        onchange={(event) => void shelf.show(Number(event.currentTarget.value))}
      >
        {#each shelf.rows ?? [] as row (row.id)}<option value={String(row.id)}
            >{row.id === editor?.id ? document?.name : row.document.name}</option
          >{/each}
      </select></label
    >
    <button class="knob" disabled={!bench} onclick={addFromBench}>New, from the Bench</button>
    <button class="knob" disabled={!document} onclick={copy}>Copy</button>
    <button
      class="knob"
      disabled={!shelf.current}
      onclick={() => shelf.current && void shelf.setRemoved(shelf.current, true)}>Remove</button
    >
    <button class="knob" disabled={!document} onclick={() => print()}>Print</button>
    {#each shelf.removed as row (row.id)}
      <button class="knob soft" onclick={() => void shelf.setRemoved(row, false)}
        >Bring {row.document.name} back</button
      >
    {/each}
    {#if editor}<KeptState kept={editor.kept} faults={editor.faults} words={setupWords} />{/if}
  </div>
  <NoticeBar
    what="comparison"
    problem={shelf.problem ?? unread ?? editor?.problem ?? null}
    conflict={(editor?.conflict ?? null) !== null}
    onresolve={(take) => editor?.resolve(take)}
    onundo={editor?.steps.back ? () => editor.undo() : null}
  />
  {#if shelf.rows?.length === 0}
    <p>
      Nothing is compared yet. <b>New, from the Bench</b> puts the Bench beside the formats that are pinned there,
      each as a full chain that can be changed.
    </p>
  {/if}
  {#if document && view && whole && equipment && editor}
    <div class="cases">
      <input
        class="set name"
        aria-label="Name of the comparison"
        value={document.name}
        maxlength="80"
        oninput={(event) => set({ name: event.currentTarget.value }, 'name')}
      />
      <span role="group" aria-label="Case">
        {#each view.cases as { case: name, name: label } (name)}
          <button class="knob" aria-pressed={document.case === name} onclick={() => set({ case: name })}
            >{label}</button
          >
        {/each}
      </span>
      <label class="no-print"
        ><span class="soft">sharp to</span>
        <select
          class="set"
          aria-label="Rule for the circle of confusion"
          value={document.coc === null ? '' : cocChoice(document.coc)}
          onchange={(event) =>
            set({ coc: COC_CHOICES.find((c) => c.label === event.currentTarget.value)?.coc ?? null })}
        >
          <option value="">the production's rule</option>
          {#each COC_CHOICES as { label } (label)}<option value={label}>{label}</option>{/each}
        </select></label
      >
      <label class="no-print"
        ><span class="soft">delivery</span>
        <select
          class="set figure"
          aria-label="Aspect of the delivery"
          value={String(document.delivery.aspect ?? '')}
          onchange={(event) =>
            set({
              delivery: {
                ...document.delivery,
                aspect: event.currentTarget.value === '' ? null : Number(event.currentTarget.value),
              },
            })}
        >
          {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option
            >{/each}
        </select></label
      >
      <span class="no-print"
        ><span class="soft">light</span>
        <NumberField
          label="Light, lux"
          size={5}
          value={document.lux}
          fault={editor.fault('lux')}
          onchange={(lux) => lux !== null && set({ lux })}
        /> lux</span
      >
      <span class="no-print">
        <button class="knob" aria-pressed={document.unit === 'm'} onclick={() => set({ unit: 'm' })}>m</button
        ><button class="knob" aria-pressed={document.unit === 'ft'} onclick={() => set({ unit: 'ft' })}
          >ft</button
        >
      </span>
    </div>
    {#if document.case !== 'as_set'}<p class="soft">
        {LETTERS.slice(1, document.columns.length).join(', ')} show A's lens before their formats, exactly as this
        case asks; what they are set to is kept, and comes back with “as set”.
      </p>{/if}
    {#if told}<p class="warn" role="status">{told}</p>{/if}
    <div class="wide">
      <table class="compared" style:--columns={document.columns.length}>
        <thead>
          <tr>
            <th class="rail no-print-text">
              <button class="knob small no-print" disabled={document.columns.length >= 4} onclick={addColumn}
                >Add a set-up</button
              >
              {#if document.columns.length > 1}<button
                  class="knob small no-print"
                  onclick={() => void matchAll()}>Match all to A</button
                >{/if}
            </th>
            {#each document.columns as column, i (column.key)}
              <th class="column">
                <CompareChain
                  index={i}
                  letter={LETTERS[i] ?? ''}
                  {column}
                  shown={view.columns[i] as CompareView['columns'][number]}
                  {equipment}
                  read={client.readDistance}
                  unit={document.unit}
                  faults={editor.faults}
                  asSet={i === 0 || document.case === 'as_set'}
                  alone={document.columns.length < 2}
                  onchange={(part, kind) => setColumn(i, part, kind)}
                  onmatch={() => void match(i)}
                  ontake={() => set({ columns: document.columns.filter((c) => c.key !== column.key) })}
                />
              </th>
            {/each}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th class="rail soft" scope="row">Through the finder, all at one size</th>
            {#each view.columns as shown (shown.key)}
              <td class="finder"><FinderDrawing view={shown.viewfinder} compact /></td>
            {/each}
          </tr>
          {#each view.rows as row (row.key)}
            <tr data-row={row.key}>
              <th class="rail soft" scope="row">{row.label}</th>
              {#each view.columns as shown, i (shown.key)}
                <td class="figure" class:differs={row.differs[i]}
                  >{#if i > 0}<span class="sign" title={row.differs[i] ? 'differs from A' : 'as A'}
                      >{row.differs[i] ? '≠' : '='}</span
                    >{/if}
                  {comparedText(row, i, document.unit)}
                  {#if row.differs[i]}<span class="soft by">{differenceText(row, i)}</span>{/if}</td
                >
              {/each}
            </tr>
          {/each}
          <tr>
            <th class="rail soft" scope="row">Watch out</th>
            {#each view.columns as shown (shown.key)}
              <td class="notes"
                >{#if shown.coverage === 'short'}<p class="bad">
                    The circle is short: {share(shown.dark_share ?? 0)} of the recording is dark.
                  </p>{/if}
                {#each shown.notes as note (note)}<p>{note}</p>{/each}</td
              >
            {/each}
          </tr>
        </tbody>
      </table>
    </div>
    {#if matching}
      <MatchOptions
        name={nameOf(matching.index)}
        match={matching.match}
        ontake={(option) => {
          const index = matching?.index
          if (index === undefined || !document) return
          const columns = document.columns.map((c, i) => (i === index ? (option.column as CompareColumn) : c))
          set({ columns, case: 'as_set' })
          matching = null
        }}
        onclose={() => (matching = null)}
      />
    {/if}
    <div class="panels">
      {#each view.why as why, i (i)}
        <WhyPanel
          {why}
          summary={view.summary[i] ?? { matches: [], differs: [] }}
          name={nameOf(i + 1)}
          unit={document.unit}
        />
      {/each}
      {#if view.rules}<RulesPanel rules={view.rules} />{/if}
    </div>
    <p class="soft no-print">
      Differences are marked above half a per cent (depth and blur one per cent, exposure a tenth of a stop).
      The parts are changed one after another, in this order; another order would share the same whole out a
      little differently.
    </p>
  {/if}
</main>
<HelpDialog open={help} {shortcuts} more={[]} onopen={(open) => (help = open)} />

<style>
  main {
    display: grid;
    gap: 8px;
    padding: 8px 16px 24px;
    grid-template-columns: minmax(0, 1fr);
  }
  .bar,
  .cases {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 0.8rem;
    align-items: center;
  }
  .name {
    font-size: 17px;
    font-weight: 600;
    field-sizing: content;
  }
  .wide {
    overflow-x: auto;
  }
  .compared {
    border-collapse: collapse;
    width: 100%;
    min-width: calc(232px + var(--columns) * 230px);
    table-layout: fixed;
  }
  .compared :is(th, td) {
    padding: 1px 12px 1px 0;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
    vertical-align: top;
  }
  .rail {
    width: 232px;
  }
  .finder {
    height: 200px;
  }
  .compared .finder {
    padding: 4px 8px 4px 0;
  }
  .differs {
    color: var(--accent);
  }
  .sign {
    display: inline-block;
    width: 1.1rem;
    color: var(--ink-soft);
  }
  .by {
    font-size: 12.5px;
  }
  .notes {
    font-size: 13.5px;
    color: var(--warn);
  }
  .bad {
    color: var(--bad);
  }
  .warn {
    color: var(--warn);
  }
  .small {
    min-height: 26px;
    padding: 0 0.5rem;
  }
  .panels {
    display: grid;
    gap: 14px 30px;
    grid-template-columns: repeat(auto-fit, minmax(min(400px, 100%), 1fr));
  }
  @media (max-width: 560px) {
    main {
      padding-inline: 8px;
    }
    .rail {
      width: 110px;
    }
    .compared {
      min-width: calc(110px + var(--columns) * 190px);
    }
  }
  @media print {
    main {
      padding: 0;
      gap: 3px;
      zoom: 0.59;
    }
    .finder {
      height: 160px;
    }
  }
</style>
