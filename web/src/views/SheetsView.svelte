<script lang="ts">
  import { onMount, untrack } from 'svelte'
  import * as client from '../lib/client'
  import { SHEET_KINDS } from '../lib/generated/choices'
  import { toQuery } from '../lib/address'
  import { pathTo, router } from '../lib/router.svelte'
  import { copyOf, newBundle, newSheet, STARTERS, titleOf, type SheetKind } from '../lib/sheets'
  import { Printing, SheetPreview, SheetsEditor, SheetStates } from '../lib/sheets.svelte'
  import type { Bundle, Package, Problem, SheetPlan, Unit } from '../lib/types'
  import type { ViewProps } from '../lib/views'
  import Segments from '../parts/controls/Segments.svelte'
  import KeptState from '../parts/page/KeptState.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import BundlePanel from '../parts/sheets/BundlePanel.svelte'
  import FilesTable from '../parts/sheets/FilesTable.svelte'
  import SheetSettings from '../parts/sheets/SheetSettings.svelte'
  import ShownSheet from '../parts/sheets/ShownSheet.svelte'
  import { otherFiles } from '../lib/otherFiles'

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
  let shotNames = $state.raw<string[]>([])
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
    shotNames = [...new Set(shots.data?.document.shots.map((shot) => shot.name) ?? [])]
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
  differences={editor?.differences ?? null}
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
        others={otherFiles(id)}
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
        <BundlePanel
          {id}
          {bundles}
          {bundle}
          {plan}
          {states}
          {roomy}
          busy={printing.busy}
          onpick={go}
          onbegin={begin}
          onput={putBundle}
          ondelete={() => put(bundles.filter((each) => each !== bundle))}
          onadd={add}
          onprint={print}
        >
          {#snippet saved()}{#if editor}<KeptState
                faults={editor.faults}
                words={(path) => path}
              />{/if}{/snippet}
        </BundlePanel>

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
            <ShownSheet {plan} {preview} {as} {scanned} state={states.of(plan).words} />
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
                  shots={shotNames}
                  uses={days.length > 0}
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
  a.knob {
    text-decoration: none;
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
