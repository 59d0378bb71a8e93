<script lang="ts">
  import type { Bench } from '../lib/bench.svelte'
  import * as client from '../lib/client'
  import { readDistance } from '../lib/client'
  import { comparisonOfBench } from '../lib/compare.svelte'
  import { stepDistance } from '../lib/format'
  import { BENCH_TABS, noteTab, tabOf, type BenchTab } from '../lib/benchTabs'
  import { modeSwitch } from '../lib/mode.svelte'
  import { router } from '../lib/router.svelte'
  import { neighbour, runShortcut, type Shortcut } from '../lib/shortcuts'
  import type { BenchState } from '../lib/types'
  import BenchTabs from '../parts/BenchTabs.svelte'
  import FinderDrawing from '../parts/FinderDrawing.svelte'
  import FormatLadder from '../parts/FormatLadder.svelte'
  import HeaderSwitches from '../parts/HeaderSwitches.svelte'
  import HelpDialog from '../parts/HelpDialog.svelte'
  import LadderFilters from '../parts/LadderFilters.svelte'
  import LinkBand from '../parts/LinkBand.svelte'
  import NoticeBar from '../parts/NoticeBar.svelte'
  import PageHeader from '../parts/PageHeader.svelte'
  import PlanDrawing from '../parts/PlanDrawing.svelte'
  import ScenePanel from '../parts/ScenePanel.svelte'
  import WindowMapDrawing from '../parts/WindowMapDrawing.svelte'
  import DepthTab from './bench/DepthTab.svelte'
  import FlickerTab from './bench/FlickerTab.svelte'
  import LightTab from './bench/LightTab.svelte'

  interface Props {
    bench: Bench
    productionName: string
  }
  let { bench, productionName }: Props = $props()

  let help = $state(false)
  let squeezed = $state(false)
  let tab = $state<BenchTab>(tabOf(location.hash))
  const change = (part: Partial<BenchState>, kind = '') => bench.change(part, kind)
  const place = $derived(bench.place)
  const lens = $derived(bench.lens)
  const view = $derived(bench.view)
  const names = $derived(
    new Map([...bench.places].map(([id, p]) => [id, `${p.format.name}, ${p.body.name}`])),
  )
  const referenceName = $derived.by(() => {
    const { name, scan_mode_id } = bench.state.reference
    if (name !== 'scan_mode') return name === 'full_frame' ? 'full frame' : 'Super 35'
    return [...bench.places.values()].find((p) => p.mode.id === scan_mode_id)?.mode.name ?? 'a window'
  })

  function placeObject(key: string, distance_m: number, aside_m: number, kind: string) {
    const { scene } = bench.state
    const objects = scene.objects.map((o) => (o.key === key ? { ...o, distance_m, aside_m } : o))
    change({ scene: { ...scene, objects } }, kind)
  }

  /** The Bench and its pinned formats as a comparison that is kept. */
  async function compare() {
    const name = `${place?.body.name ?? 'Bench'}, ${place?.format.name ?? ''}`
    const { data, problem } = await client.addComparison(
      bench.productionId,
      comparisonOfBench(bench.state, name),
    )
    if (data) router.go(`/p/${bench.productionId}/compare/${data.id}`)
    else bench.problem = problem
  }

  function stepLens(by: number) {
    const next = neighbour(
      bench.lenses,
      bench.lenses.findIndex((x) => x.id === bench.state.lens_id),
      by,
    )
    if (next) change({ lens_id: next.id, focal_mm: null })
  }

  function stepStop(by: number) {
    if (!view) return
    const at = view.lens.stops.findIndex((stop) => stop >= (view.lens.stop ?? 0) - 1e-6)
    const next = neighbour(view.lens.stops, at, by)
    if (next) change({ stop: next }, 'stop')
  }

  function stepFormat(by: number) {
    const rows = view?.rows.filter((row) => row.shown) ?? []
    const next = neighbour(
      rows,
      rows.findIndex((row) => row.format_id === bench.state.format_id),
      by,
    )
    if (next) change({ format_id: next.format_id }, 'choose')
  }

  function stepSubject(by: number) {
    const { subject_m, unit } = bench.state
    change({ subject_m: stepDistance(subject_m, unit, by) }, 'step subject')
  }

  function togglePin() {
    const { pinned, format_id: id } = bench.state
    change({ pinned: pinned.includes(id) ? pinned.filter((p) => p !== id) : [...pinned, id].slice(-4) })
  }

  function nextReference() {
    const { reference } = bench.state
    change({
      reference: {
        ...reference,
        name: reference.name === 'super35' ? 'full_frame' : 'super35',
        scan_mode_id: null,
      },
    })
  }

  const shortcuts: Shortcut[] = [
    { keys: '?', on: ['?'], does: 'These keys', run: () => (help = true) },
    { keys: 'x  c', on: ['c'], does: 'Previous, next lens of the kit', run: () => stepLens(1) },
    { keys: 'x', on: ['x'], does: 'Previous lens of the kit', run: () => stepLens(-1) },
    { keys: 'v', on: ['v'], does: 'Open up by a mark', run: () => stepStop(-1) },
    { keys: 'b', on: ['b'], does: 'Stop down by a mark', run: () => stepStop(1) },
    { keys: 'w', on: ['w'], does: 'Subject farther', run: () => stepSubject(1) },
    { keys: 's', on: ['s'], does: 'Subject nearer', run: () => stepSubject(-1) },
    {
      keys: 'd',
      on: ['d'],
      does: 'Type the subject distance',
      run: () => document.getElementById('subject-distance')?.focus(),
    },
    { keys: 'e', on: ['e'], does: 'Previous recording format of the ladder', run: () => stepFormat(-1) },
    { keys: 'r', on: ['r'], does: 'Next recording format of the ladder', run: () => stepFormat(1) },
    { keys: 'p', on: ['p'], does: 'Pin the recording format, or take the pin off', run: togglePin },
    {
      keys: 'h',
      on: ['h'],
      does: 'How the chosen row is computed',
      run: () => bench.toggleOpen(bench.state.format_id),
    },
    ...(Object.entries(BENCH_TABS) as [BenchTab, string][]).map(([name, title], i) => ({
      keys: String(i + 1),
      on: [String(i + 1)],
      does: `Below the drawings: ${title}`,
      run: () => {
        noteTab(name)
        tab = name
      },
    })),
    { keys: 'g', on: ['g'], does: 'Reference: Super 35 or full frame', run: nextReference },
    {
      keys: 'u',
      on: ['u'],
      does: 'Metres or feet',
      run: () => change({ unit: bench.state.unit === 'm' ? 'ft' : 'm' }),
    },
    { keys: 'n', on: ['n'], does: 'Night or day', run: () => modeSwitch.toggle() },
    { keys: 'Ctrl Z', on: ['ctrl+z'], does: 'Undo', run: () => bench.undo() },
    { keys: 'Ctrl Shift Z', on: ['ctrl+shift+z', 'ctrl+y'], does: 'Redo', run: () => bench.redo() },
  ]
  const inParts = [
    {
      keys: '↑ ↓ PgUp PgDn',
      does: 'In a distance, and on subject, focus or a thing in the plan view: 5 cm or an inch, or ten of them',
    },
    { keys: '↑ ↓ Home End', does: 'In the ladder: choose a row. Enter shows how it is computed, p pins it' },
  ]
  const listed = shortcuts.filter((s) => s.keys !== 'x')
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts)} />
<svelte:head><title>{productionName}: Bench – Hextan</title></svelte:head>

<PageHeader
  productionId={bench.productionId}
  {productionName}
  current="bench"
  steps={bench.steps}
  onundo={() => bench.undo()}
  onredo={() => bench.redo()}
  onhelp={() => (help = true)}
>
  <HeaderSwitches state={bench.state} package={bench.package} onchange={change} />
</PageHeader>

<main>
  <NoticeBar
    what="Bench"
    problem={bench.problem}
    conflict={bench.conflict !== null}
    onresolve={(take) => bench.resolve(take)}
    onundo={bench.steps.back ? () => bench.undo() : null}
  />
  {#if view && place && lens}
    <div class="content" class:stale={bench.problem !== null}>
      <LinkBand
        state={bench.state}
        {view}
        package={bench.package}
        {place}
        {lens}
        places={bench.places}
        {referenceName}
        read={readDistance}
        onchange={change}
      />
      {#each bench.notes as note (note)}<p class="warn">{note}</p>{/each}
      {#each view.lens.notes as note (note.code)}<p class="warn">{note.text}</p>{/each}
      {#if view.viewfinder.perspective.caution}<p class="warn">{view.viewfinder.perspective.caution}</p>{/if}
      {#if view.plan.movement}<p class={view.plan.movement.holds === false ? 'warn' : 'soft'}>
          {view.plan.movement.text}
        </p>{/if}
      {#if view.links.subject.text}<p class={view.links.subject.sharp ? 'soft' : 'warn'}>
          {view.links.subject.text}
        </p>{/if}
      <div class="drawings">
        <section class="plan" aria-label="Plan view">
          <PlanDrawing
            plan={view.plan}
            unit={bench.state.unit}
            {names}
            objects={view.viewfinder.objects}
            reach={bench.reach}
            onreach={(metres) => bench.setReach(metres)}
            onplace={placeObject}
            onmove={(handle, metres, kind) =>
              change(handle === 'subject' ? { subject_m: metres } : { focus_m: metres }, kind)}
            ondrag={(on) => bench.drag(on)}
          />
        </section>
        <section class="finder" aria-label="Finder">
          <FinderDrawing
            view={view.viewfinder}
            name="{place.format.name}, {place.body.name}"
            {squeezed}
            onsqueezed={(on) => (squeezed = on)}
          />
        </section>
        <section class="map" aria-label="Window map">
          <WindowMapDrawing
            map={view.window_map}
            bodyName={place.body.name}
            onchoose={(modeId) => {
              const first = place.body.modes.find((mode) => mode.id === modeId)?.formats[0]
              if (first) change({ format_id: first.id })
            }}
          />
        </section>
      </div>
      <div class="below">
        <BenchTabs current={tab} onchoose={(next) => (tab = next)} />
        <button class="knob" onclick={() => void compare()}
          >{bench.state.pinned.length ? 'Compare with the pins' : 'Compare'}</button
        >
      </div>
      {#if tab === 'scene'}
        <ScenePanel state={bench.state} view={view.viewfinder} read={readDistance} onchange={change} />
      {:else if tab === 'depth'}
        <DepthTab productionId={bench.productionId} state={bench.state} {names} onchange={change} />
      {:else if tab === 'light'}
        <LightTab
          productionId={bench.productionId}
          state={bench.state}
          stops={view.lens.stops}
          onchange={change}
        />
      {:else if tab === 'flicker'}
        <FlickerTab productionId={bench.productionId} state={bench.state} onchange={change} />
      {:else}
        <LadderFilters state={bench.state} {view} bodyName={place.body.name} onchange={change} />
        <FormatLadder
          state={bench.state}
          {view}
          places={bench.places}
          open={bench.open}
          dragging={bench.dragging}
          onchange={change}
          ontoggleopen={(id) => bench.toggleOpen(id)}
        />
      {/if}
    </div>
  {:else if !bench.problem}
    <p class="soft">Computing…</p>
  {/if}
</main>
<HelpDialog open={help} shortcuts={listed} more={inParts} onopen={(open) => (help = open)} />

<style>
  main {
    display: grid;
    gap: 6px;
    padding: 8px 16px 24px;
    grid-template-columns: minmax(0, 1fr);
  }
  .content {
    display: grid;
    gap: 7px;
    grid-template-columns: minmax(0, 1fr);
  }
  .stale {
    opacity: 0.55;
  }
  .warn {
    color: var(--warn);
  }
  .below {
    display: flex;
    gap: 1rem;
    align-items: center;
    border-bottom: 1px solid var(--line);
  }
  .below button {
    margin-left: auto;
  }
  .drawings {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1.05fr) minmax(0, 0.62fr);
    grid-template-rows: 300px;
    gap: 10px;
  }
  .plan,
  .finder,
  .map {
    min-width: 0;
    min-height: 0;
    /* A layer each: dragging in one drawing paints neither the other nor the page. */
    contain: layout paint;
    will-change: transform;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  @media (max-width: 1000px) {
    .drawings {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: 290px minmax(260px, 52vw) 330px;
    }
  }
  @media (max-width: 560px) {
    main {
      padding-inline: 8px;
    }
    .drawings {
      grid-template-rows: 250px 60vw 330px;
    }
  }
</style>
