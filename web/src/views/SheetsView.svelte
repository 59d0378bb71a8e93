<script lang="ts">
  import { onMount, untrack } from 'svelte'
  import * as client from '../lib/client'
  import { SHEET_KINDS } from '../lib/generated/choices'
  import { toQuery } from '../lib/address'
  import { pathTo, router } from '../lib/router.svelte'
  import { askedOf, copyOf, newBundle, newSheet, STARTERS, titleOf, type SheetKind } from '../lib/sheets'
  import { PAGES, Printing, SheetPreview, SheetsEditor, SheetStates } from '../lib/sheets.svelte'
  import type { Bundle, Package, Problem, SheetPlan, Unit } from '../lib/types'
  import type { ViewProps } from '../lib/views'
  import Choice from '../parts/controls/Choice.svelte'
  import Segments from '../parts/controls/Segments.svelte'
  import EntryField from '../parts/fields/EntryField.svelte'
  import KeptState from '../parts/page/KeptState.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import FilesTable from '../parts/sheets/FilesTable.svelte'
  import PaperPage from '../parts/sheets/PaperPage.svelte'
  import SheetReading from '../parts/sheets/SheetReading.svelte'
  import SheetSettings from '../parts/sheets/SheetSettings.svelte'

  let { productionId, rest }: ViewProps = $props()
  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId

  let editor = $state.raw<SheetsEditor | null>(null)
  let productionName = $state('')
  let unread = $state.raw<Problem | null>(null)
  let equipment = $state.raw<Package | null>(null)
  let unit = $state<Unit>('m')
  let days = $state.raw<string[]>([])
  let kits = $state.raw<string[]>([])
  let comparisons = $state.raw<string[]>([])
  let as = $state<'pages' | 'real' | 'reading'>(globalThis.innerWidth < 700 ? 'reading' : 'pages')
  /** Whether lists stand beside the sheet, and not over it. */
  const roomy = globalThis.innerWidth >= 700
  const states = new SheetStates(id)
  const preview = new SheetPreview(id, (plan, seen) => states.note(plan, seen))
  const printing = new Printing(id, (seen) => {
    markMade(seen.fingerprints, seen.at)
    const link = document.createElement('a')
    link.href = client.printedAddress(id, seen.name)
    link.download = `${productionName}, ${bundle?.name ?? 'sheets'}.pdf`
    link.click()
  })

  async function open() {
    const [sheets, production, carried, settings, shots, packing, compared] = await Promise.all([
      client.readSheets(id),
      client.readProduction(id),
      client.readPackage(id),
      client.readSettings(id),
      client.readShots(id),
      client.readPacking(id),
      client.listComparisons(id),
    ])
    unread =
      [sheets, production, carried, settings, shots, packing, compared].find((each) => each.problem)
        ?.problem ?? null
    productionName = production.data?.facts.name ?? ''
    equipment = carried.data ?? null
    unit = settings.data?.settings.unit ?? 'm'
    days = [...new Set(shots.data?.document.shots.map((shot) => shot.day) ?? [])]
    kits = packing.data?.document.kits.map((kit) => kit.name) ?? []
    comparisons = compared.data?.here.map((each) => each.document.name) ?? []
    if (sheets.data) editor = new SheetsEditor(id, sheets.data)
  }
  onMount(() => {
    void open()
    return () => {
      editor?.close()
      states.close()
      preview.close()
      printing.close()
    }
  })

  const bundles = $derived(editor?.document.bundles ?? [])
  const bundle = $derived(
    bundles.find((each) => each.key === rest[0] || each.sheets.some((sheet) => sheet.key === rest[0])) ??
      bundles[0],
  )
  /** A sheet of what another view shows: of no bundle, until it is put into one. */
  let loose = $state.raw<SheetPlan | null>(null)
  $effect.pre(() => {
    const kind = SHEET_KINDS.find((each) => rest[0] === `of-${each.kind}`)?.kind
    untrack(() => {
      if (kind === loose?.kind) return
      const which = new URLSearchParams(location.search).get('which') ?? ''
      loose = kind ? newSheet(kind, { key: `of-${kind}`, which }) : null
    })
  })
  const plan = $derived(loose ?? bundle?.sheets.find((sheet) => sheet.key === rest[0]) ?? bundle?.sheets[0])
  const scanned = $derived.by(() => {
    void router.queries
    void router.path
    return new URLSearchParams(location.search).get('state')
  })
  $effect(() => {
    if (!plan) return
    const asked = plan
    untrack(() => preview.ask(asked))
  })
  $effect(() => {
    const wanted = bundle?.sheets ?? []
    untrack(() => states.want(wanted))
  })

  function put(changed: Bundle[], kind = '') {
    if (editor) editor.change({ ...editor.document, bundles: changed }, kind)
  }
  const putBundle = (part: Partial<Bundle>, kind = '') =>
    put(
      bundles.map((each) => (each === bundle ? { ...each, ...part } : each)),
      kind,
    )
  function keepLoose() {
    if (!plan) return
    const kept = copyOf(plan)
    if (bundle) putBundle({ sheets: [...bundle.sheets, kept] })
    else put([newBundle([], 'For the cart', [kept])])
    go(kept.key)
  }
  function setPlan(part: Partial<SheetPlan>) {
    if (loose) {
      loose = { ...loose, ...part }
      return
    }
    if (!bundle || !plan) return
    putBundle(
      { sheets: bundle.sheets.map((each) => (each === plan ? { ...each, ...part } : each)) },
      `${plan.key}.${Object.keys(part).join()}`,
    )
  }
  const go = (key: string | undefined) =>
    router.go(key ? `${pathTo(id, 'sheets')}/${key}` : pathTo(id, 'sheets'))
  function begin(name: string, sheets: SheetPlan[]) {
    const made = newBundle(bundles, name, sheets)
    put([...bundles, made])
    go(made.sheets[0]?.key ?? made.key)
  }
  function add(kind: SheetKind) {
    if (!bundle) return
    const made = newSheet(kind, plan ? { paper: plan.paper, large: plan.large, unit: plan.unit } : {})
    putBundle({ sheets: [...bundle.sheets, made] })
    go(made.key)
  }
  function change(how: 'copy' | 'remove' | 'up' | 'down') {
    if (!bundle || !plan) return
    const at = bundle.sheets.indexOf(plan)
    const sheets = [...bundle.sheets]
    if (how === 'copy') sheets.splice(at + 1, 0, copyOf(plan))
    if (how === 'remove') sheets.splice(at, 1)
    const to = at + (how === 'up' ? -1 : 1)
    if ((how === 'up' || how === 'down') && to >= 0 && to < sheets.length) {
      sheets.splice(at, 1)
      sheets.splice(to, 0, plan)
    }
    putBundle({ sheets })
    if (how === 'remove') go((sheets[at] ?? sheets[at - 1])?.key ?? bundle.key)
    if (how === 'copy') go(sheets[at + 1]?.key)
  }
  function forAll() {
    if (!bundle || !plan) return
    const { paper, large, unit: told } = plan
    putBundle({ sheets: bundle.sheets.map((each) => ({ ...each, paper, large, unit: told })) })
  }
  function markMade(fingerprints: Record<string, string>, at: string) {
    // What another view shows is in no bundle, and nothing is noted of it.
    if (loose) return
    put(
      bundles.map((each) => ({
        ...each,
        sheets: each.sheets.map((sheet) => {
          const fingerprint = fingerprints[sheet.key]
          return fingerprint ? { ...sheet, made: { at, fingerprint } } : sheet
        }),
      })),
    )
  }
  const print = (plans: SheetPlan[]) => void printing.print(bundle?.name ?? 'Sheets', plans)

  const stateOf = (sheet: SheetPlan) => {
    const known = states.known[sheet.key]
    if (!known || known.asked !== askedOf(sheet)) return { words: '…', tone: 'soft' }
    if (known.working) return { words: 'looked for …', tone: 'soft' }
    if (known.empty) return { words: 'nothing to print', tone: 'warn' }
    if (!sheet.made) return { words: 'not printed', tone: 'soft' }
    return known.fingerprint === sheet.made.fingerprint
      ? { words: '✓ current', tone: 'ok' }
      : { words: '≠ plan changed', tone: 'warn' }
  }
  const pagesOf = (sheet: SheetPlan) => states.known[sheet.key]?.pages
  const old = $derived(
    bundle?.sheets.filter((sheet) => sheet.made && stateOf(sheet).words.includes('changed')) ?? [],
  )
  const total = $derived(bundle?.sheets.reduce((sum, sheet) => sum + (pagesOf(sheet) ?? 0), 0) ?? 0)
  const dayOf = (at: string) =>
    new Date(at).toLocaleString('en-GB', {
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    })
  const last = $derived(Math.min(preview.first + PAGES, preview.seen?.page_count ?? 0))
  const at = (by: number) => {
    const all = bundle?.sheets ?? []
    const next = all[Math.max(0, Math.min(all.length - 1, (plan ? all.indexOf(plan) : 0) + by))]
    if (next && next !== plan) go(next.key)
  }
  const keys = [
    { keys: '.', on: ['.'], does: 'Next sheet', run: () => at(1) },
    { keys: ',', on: [','], does: 'Previous sheet', run: () => at(-1) },
    { keys: 'p', on: ['p'], does: 'Print this sheet as PDF', run: () => plan && print([plan]) },
  ]
  const VIEWED = [
    { value: 'pages', label: 'Pages' },
    { value: 'real', label: 'Real size' },
    { value: 'reading', label: 'To read' },
  ] as const

  /** Other files of the production, with where they are. */
  const elsewhere = [
    {
      title: 'The whole production, JSON',
      carries: 'Everything that is entered: exact.',
      lost: 'Nothing.',
      back: 'As a production of its own, on the page of productions.',
      href: client.productionFileAddress(id, false),
      name: 'Save',
    },
    {
      title: 'Shots: CSV, XLSX, ODS, OpenTimelineIO, edit list',
      carries: 'Every cell as it was typed; the answers behind them. An edit list: numbers, reels, comments.',
      lost: 'Of a timeline what stands beside its clips.',
      back: 'Into the list: what would change is told first.',
      href: pathTo(id, 'shots'),
      name: 'Shots',
    },
    {
      title: 'Bodies and lens sets: JSON, CSV, ASC FDL',
      carries: 'As the file says: JSON all, CSV rows, FDL canvases and framings.',
      lost: 'Of an FDL what stands in no canvas.',
      back: 'Into the Package.',
      href: pathTo(id, 'package', 'bodies'),
      name: 'Package',
    },
  ]
</script>

<ViewFrame
  productionId={id}
  {productionName}
  current="sheets"
  heading={rest[0] === 'files' ? 'Files for other programs' : plan ? titleOf(plan) : 'Sheets'}
  undo={editor && { steps: editor.steps, undo: () => editor?.undo(), redo: () => editor?.redo() }}
  {keys}
  what="sheets"
  problem={editor?.problem ?? unread ?? preview.problem ?? states.problem ?? printing.problem}
  conflict={editor?.conflict != null}
  onresolve={(take) => editor?.resolve(take)}
  onundo={editor?.steps.back ? () => editor?.undo() : null}
  onretry={() => {
    if (!editor) return void open()
    editor.retry()
    preview.retry()
    states.again()
  }}
  waiting={editor === null}
>
  {#if editor && equipment}
    {#if rest[0] === 'files'}
      <p><a class="link" href={pathTo(id, 'sheets')}>← Sheets</a></p>
      <FilesTable
        addressOf={(kind, of) => client.handoverAddress(id, kind, of)}
        others={elsewhere}
        read={(kind, file) => client.readCameras(id, kind, file)}
        hrefOf={(state) => `${pathTo(id, 'bench')}?${toQuery(state)}`}
      />
    {:else if !bundles.length && !loose}
      <div class="begin">
        <p>Sheets are printed together in bundles. Begin with one of these, and change it as you like:</p>
        {#each STARTERS as starter (starter.name)}
          <p>
            <button class="knob" onclick={() => begin(starter.name, starter.sheets())}>{starter.name}</button>
            <span class="soft">{starter.told}</span>
          </p>
        {/each}
      </div>
    {:else}
      <div class="three">
        <aside class="no-print" aria-label="Sheets of the bundle">
          <details open={roomy}>
            <summary>{bundle?.name}: {bundle?.sheets.length ?? 0} sheets</summary>
            <div class="within">
              <div class="row">
                <Choice
                  label="Bundle"
                  options={bundles.map((each) => ({ value: each.key, label: each.name }))}
                  value={bundle?.key}
                  onchange={(key) =>
                    go(bundles.find((each) => each.key === key)?.sheets[0]?.key ?? String(key))}
                />
                <Choice
                  label="New bundle"
                  options={STARTERS.map((starter) => ({ value: starter.name, label: starter.name }))}
                  value={null}
                  placeholder="New bundle …"
                  onchange={(name) => {
                    const starter = STARTERS.find((each) => each.name === name)
                    if (starter) begin(starter.name, starter.sheets())
                  }}
                />
              </div>
              {#if bundle}
                <div class="row">
                  <EntryField
                    label="Name of the bundle"
                    kind="text"
                    size={18}
                    value={bundle.name}
                    fault={bundle.name ? undefined : 'needs a name'}
                    oninput={(name) => putBundle({ name: String(name) }, `${bundle.key}.name`)}
                  />
                  <button class="knob small" onclick={() => put(bundles.filter((each) => each !== bundle))}
                    >Delete bundle</button
                  >
                  <KeptState kept={editor.kept} faults={editor.faults} words={(path) => path} />
                </div>
                <ol class="sheets">
                  {#each bundle.sheets as sheet (sheet.key)}
                    {@const told = stateOf(sheet)}
                    <li>
                      <a
                        href="{pathTo(id, 'sheets')}/{sheet.key}"
                        class:chosen={sheet === plan}
                        aria-current={sheet === plan ? 'true' : undefined}
                      >
                        <span>{titleOf(sheet)}</span>
                        <span class="figure">{pagesOf(sheet) ?? ''}</span>
                        <span class={told.tone}>{told.words}</span>
                      </a>
                    </li>
                  {/each}
                </ol>
                <div class="row">
                  <Choice
                    label="Add a sheet"
                    options={SHEET_KINDS.map((kind) => ({ value: kind.kind, label: kind.title }))}
                    value={null}
                    placeholder="Add a sheet …"
                    onchange={(kind) => kind && add(kind as SheetKind)}
                  />
                </div>
                <p class="soft">
                  {total} pages in {bundle.sheets.length === 1
                    ? 'one sheet'
                    : `${bundle.sheets.length} sheets`}.
                  {#if old.length}<span class="warn"
                      >{old.length === 1 ? 'One is' : `${old.length} are`} older than the plan.</span
                    >{/if}
                </p>
                <p><a class="link" href="{pathTo(id, 'sheets')}/files">Files for other programs</a></p>
                <div class="row">
                  <button
                    class="knob"
                    disabled={printing.busy || !bundle.sheets.length}
                    onclick={() => print(bundle.sheets)}>Bundle as PDF</button
                  >
                  {#if old.length}<button class="knob" disabled={printing.busy} onclick={() => print(old)}
                      >Make {old.length === 1 ? 'it' : 'them'} anew</button
                    >{/if}
                </div>
              {/if}
            </div>
          </details>
        </aside>

        <section class="middle" aria-label="The sheet" aria-busy={preview.busy}>
          {#if plan}
            <div class="row no-print">
              <Segments label="Shown as" options={VIEWED} value={as} onchange={(value) => (as = value)} />
              <button class="knob" disabled={printing.busy} onclick={() => plan && print([plan])}>PDF</button>
              <button class="knob" onclick={() => window.print()}>Print</button>
              {#if loose}<button class="knob" onclick={keepLoose}
                  >Put into {bundle?.name ?? 'a bundle'}</button
                >{:else}{#each ['csv', 'xlsx', 'ods'] as const as kind (kind)}<a
                    class="knob"
                    href={client.sheetAddress(id, plan.key, kind)}
                    download
                    aria-disabled={!editor.kept}>{kind.toUpperCase()}</a
                  >{/each}{/if}
              {#if printing.busy}<span class="soft" role="status"
                  >{printing.seen?.told} …
                  <button class="knob small" onclick={() => void printing.stop()}>Stop</button></span
                >
              {:else if printing.seen?.problem}<span class="bad" role="status">{printing.seen.problem}</span>
              {:else if printing.seen?.state === 'done'}<span class="soft" role="status"
                  ><a class="link" href={client.printedAddress(id, printing.seen.name)} download
                    >{printing.seen.pages} pages are printed</a
                  >{#each Object.values(printing.seen.empty) as why (why)}<br /><span class="warn">{why}</span
                    >{/each}</span
                >{/if}
            </div>
            {#if scanned && preview.seen}
              <p class="no-print" role="status">
                {#if scanned === preview.seen.fingerprint}<span class="ok"
                    >✓ The paper you scanned is current.</span
                  >
                {:else}<span class="warn"
                    >≠ The paper you scanned is another state ({scanned.slice(0, 4)} …): the plan has changed since,
                    or it was made for another paper or unit. Print it anew.</span
                  >{/if}
              </p>
            {/if}
            {#if plan.made}<p class="soft no-print">
                Printed last {dayOf(plan.made.at)}; {stateOf(plan).words.replace(/^\S+ /, '')}.
              </p>{/if}
            {#if preview.seen}
              {#if preview.seen.sheet.why_empty}
                <p class={preview.seen.working ? 'soft' : 'warn'}>{preview.seen.sheet.why_empty}</p>
              {:else}
                {#if preview.seen.unknown_signs}<p class="warn no-print">
                    No font of the sheets has {preview.seen.unknown_signs}: an empty box is printed for each.
                  </p>{/if}
                {#if as !== 'reading'}
                  {#if preview.seen.page_count > PAGES}
                    <div class="row no-print">
                      <button
                        class="knob small"
                        aria-label="Pages before"
                        disabled={preview.first === 0}
                        onclick={() => preview.turn(Math.max(0, preview.first - PAGES))}>‹</button
                      >
                      <span>pages {preview.first + 1}–{last} of {preview.seen.page_count}</span>
                      <button
                        class="knob small"
                        aria-label="Further pages"
                        disabled={last >= preview.seen.page_count}
                        onclick={() => preview.turn(preview.first + PAGES)}>›</button
                      >
                    </div>
                  {/if}
                  <!-- A region that scrolls takes the keys of whoever looks at it. -->
                  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
                  <div
                    class="pages no-print"
                    class:stale={preview.busy}
                    class:real={as === 'real'}
                    role="group"
                    aria-label="Pages"
                    tabindex="0"
                  >
                    {#each preview.seen.pages as page, i (i)}
                      <PaperPage
                        {page}
                        real={as === 'real'}
                        told="Page {preview.seen.first + i + 1} of {preview.seen.page_count}: {titleOf(
                          plan,
                        )}. The same stands under To read."
                      />
                    {/each}
                  </div>
                  <div class="print-only">
                    <SheetReading sheet={preview.seen.sheet} state={preview.seen.fingerprint} />
                  </div>
                {:else}
                  <SheetReading sheet={preview.seen.sheet} state={preview.seen.fingerprint} />
                {/if}
              {/if}
            {:else}<p class="soft">…</p>{/if}
          {:else}
            <p>This bundle has no sheet yet: add one.</p>
          {/if}
        </section>

        {#if plan}
          <aside class="no-print" aria-label="Settings of the sheet">
            <details open={roomy}>
              <summary>What this sheet is</summary>
              <div class="within">
                <SheetSettings
                  {plan}
                  {equipment}
                  {unit}
                  {days}
                  {kits}
                  {comparisons}
                  read={client.readDistance}
                  onchange={setPlan}
                />
                {#if !loose}<div class="row">
                    <button class="knob small" onclick={() => change('up')} aria-label="Move the sheet up"
                      >↑</button
                    >
                    <button class="knob small" onclick={() => change('down')} aria-label="Move the sheet down"
                      >↓</button
                    >
                    <button class="knob small" onclick={() => change('copy')}>Copy</button>
                    <button class="knob small" onclick={() => change('remove')}>Delete</button>
                    <button
                      class="knob small"
                      onclick={forAll}
                      title="Paper, type and unit of this sheet for all of the bundle">Paper for all</button
                    >
                  </div>{/if}
              </div>
            </details>
          </aside>
        {/if}
      </div>
    {/if}
  {/if}
</ViewFrame>

<style>
  .begin {
    display: grid;
    gap: 10px;
  }
  .three {
    display: grid;
    grid-template-columns: 300px minmax(0, 1fr) 290px;
    gap: 18px;
    align-items: start;
  }
  @media (min-width: 700px) {
    summary {
      display: none;
    }
  }
  .within,
  .middle {
    display: grid;
    gap: 8px;
    align-content: start;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  .sheets {
    display: grid;
    border-top: 1px solid var(--line);
  }
  .sheets a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 32px 104px;
    gap: 8px;
    padding: 5px 8px;
    color: inherit;
    text-decoration: none;
    border-bottom: 1px solid var(--line);
  }
  .sheets .figure {
    text-align: right;
  }
  .chosen {
    background: var(--cell-strong);
  }
  .pages {
    display: grid;
    gap: 14px;
    justify-items: center;
  }
  .real {
    justify-items: start;
    overflow-x: auto;
  }
  .stale {
    opacity: 0.6;
  }
  a.knob {
    text-decoration: none;
  }
  @media (pointer: coarse) {
    .sheets a {
      min-height: 44px;
      align-items: center;
    }
  }
  @media (max-width: 1180px) {
    .three {
      grid-template-rows: auto 1fr;
      grid-template-columns: 280px minmax(0, 1fr);
    }
    .three > :last-child {
      grid-column: 1;
    }
    .middle {
      grid-row: 1 / span 2;
      grid-column: 2;
    }
  }
  @media (max-width: 700px) {
    .three {
      grid-template-columns: minmax(0, 1fr);
    }
    .middle,
    .three > :last-child {
      grid-row: auto;
      grid-column: 1;
    }
  }
  @media print {
    .three {
      display: block;
    }
  }
</style>
