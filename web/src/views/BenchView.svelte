<script lang="ts">
  import { untrack, type Component } from 'svelte'
  import { announced, type Announced } from '../lib/announced'
  import { announcer } from '../lib/announcer.svelte'
  import type { Bench } from '../lib/bench.svelte'
  import { benchKeys, KEYS_IN_PARTS } from '../lib/benchKeys'
  import { BENCH_TABS, noteTab, tabOf, type BenchTab, type BenchTabProps } from '../lib/benchTabs'
  import * as client from '../lib/client'
  import { comparisonOfBench } from '../lib/compare.svelte'
  import { looksElsewhere, referenceName } from '../lib/reference'
  import { pathTo, router } from '../lib/router.svelte'
  import { freeName } from '../lib/rows'
  import { noteShot, notedShot, type ShotOnBench } from '../lib/shotOnBench'
  import type { BenchState } from '../lib/types'
  import { cocChoice } from '../parts/chain/coc'
  import LinkBand from '../parts/chain/LinkBand.svelte'
  import TabPages from '../parts/controls/TabPages.svelte'
  import HeaderSwitches from '../parts/page/HeaderSwitches.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import Drawings from './bench/Drawings.svelte'
  import FormatsTab from './bench/FormatsTab.svelte'

  /** All tabs but the first one come when they are asked for. */
  const pages = import.meta.glob<{ default: Component<BenchTabProps> }>([
    './bench/*Tab.svelte',
    '!./bench/FormatsTab.svelte',
  ])
  interface Props {
    bench: Bench
    productionName: string
  }
  let { bench, productionName }: Props = $props()

  let tab = $state<BenchTab>(tabOf(location.hash))
  const coming = $derived(pages[`./bench/${BENCH_TABS.find((row) => row.value === tab)?.file}.svelte`]?.())
  const change = (part: Partial<BenchState>, kind = '') => bench.change(part, kind)
  const place = $derived(bench.place)
  const lens = $derived(bench.lens)
  const view = $derived(bench.view)
  const names = $derived(
    new Map([...bench.places].map(([id, p]) => [id, `${p.format.name}, ${p.body.name}`])),
  )
  const house = $derived(bench.package.reference)
  const shownReference = $derived(referenceName(bench.state.reference ?? house, bench.package))

  // Each answer is told once, against the one before it.
  let before: Announced | null = null
  $effect(() => {
    if (!view) return
    const now = {
      state: untrack(() => bench.state),
      view,
      lens: untrack(() => lens),
      place: untrack(() => place),
    }
    const text = announced(before, now)
    before = now
    if (text) announcer.say(text)
  })

  function show(next: BenchTab) {
    noteTab(next)
    tab = next
  }

  /** The Bench and its pinned formats as a comparison that is kept. */
  async function compare() {
    const name = `${place?.body.name ?? 'Bench'}, ${place?.format.name ?? ''}`
    const asked = comparisonOfBench(bench.state, name)
    const { data, problem } = await client.addComparison(bench.productionId, asked)
    if (data) router.go(pathTo(bench.productionId, 'compare', data.id))
    else bench.problem = problem
  }

  /** The shot from which this Bench was opened. */
  // svelte-ignore state_referenced_locally (the view is made anew for another production)
  let from = $state.raw(notedShot(bench.productionId))
  let kept = $state('')
  /** Keep the Bench as a shot: a new one, or the one from which it was opened. */
  async function keep(into: ShotOnBench | null) {
    const { productionId, state } = bench
    const list = await client.readShots(productionId)
    const shots = list.data?.document.shots ?? []
    const old = shots.find((shot) => shot.key === into?.key)
    const name = old?.name ?? freeName('Bench', shots)
    const made = await client.shotOfBench(productionId, state, name)
    const problem = list.problem ?? made.problem ?? null
    if (!list.data || !made.data) {
      bench.problem = problem
      return
    }
    const { framing, distance, height, speed, stop, look, light, picture, pin } = made.data
    const shot = old
      ? {
          ...old,
          framing,
          distance,
          height,
          speed,
          stop,
          look,
          light: light || old.light,
          picture: picture || old.picture,
          pin,
        }
      : made.data
    const next = old ? shots.map((row) => (row.key === old.key ? shot : row)) : [...shots, shot]
    const document = { ...list.data.document, shots: next }
    const written = await client.writeShots(productionId, list.data.version, document)
    bench.problem = written.problem ?? null
    if (!written.data) return
    from = { key: shot.key, name: shot.name }
    noteShot(productionId, from)
    kept = old ? `Taken back into shot ${shot.name}.` : `Kept as shot ${shot.name}.`
    announcer.say(kept)
  }

  const keys = benchKeys({
    now: () => ({ state: bench.state, house, view: bench.view, lenses: bench.lenses, change }),
    derive: () => bench.toggleOpen(bench.state.format_id),
    show,
    keep: () => void keep(null),
  })
</script>

<ViewFrame
  productionId={bench.productionId}
  {productionName}
  current="bench"
  heading="Bench"
  sheet={{ kind: 'bench' }}
  undo={{ steps: bench.steps, undo: () => bench.undo(), redo: () => bench.redo() }}
  {keys}
  more={KEYS_IN_PARTS}
  what="Bench"
  problem={bench.problem}
  differences={bench.differences}
  together={false}
  onresolve={(take) => bench.resolve(take)}
  onundo={bench.steps.back ? () => bench.undo() : null}
  rule={bench.state.coc === null ? "the production's rule" : cocChoice(bench.state.coc)}
  onretry={() => bench.retry()}
  waiting={view === null}
>
  {#snippet switches()}
    <HeaderSwitches state={bench.state} package={bench.package} onchange={change} />
  {/snippet}
  {#if view && place && lens}
    {@const below = {
      productionId: bench.productionId,
      state: bench.state,
      view,
      places: bench.places,
      names,
      bodyName: place.body.name,
      open: bench.open,
      dragging: bench.dragging,
      onsight: (formatIds: number[]) => (bench.inSight = formatIds),
      onchange: change,
      ontoggleopen: (id: number) => bench.toggleOpen(id),
    }}
    <div class="content" class:stale={bench.problem !== null}>
      <LinkBand
        state={bench.state}
        {view}
        package={bench.package}
        {place}
        {lens}
        places={bench.places}
        referenceName={shownReference}
        read={client.readDistance}
        onchange={change}
      />
      {#if looksElsewhere(bench.state.reference, house)}
        <p class="warn">
          Counted against {shownReference} here; the production counts against {referenceName(
            house,
            bench.package,
          )}, and every other page does.
          <button class="link" onclick={() => change({ reference: null })}
            >Count as the production does</button
          >
        </p>
      {/if}
      {#each bench.notes as note (note)}<p class="warn">{note}</p>{/each}
      {#each view.lens.notes as note (note.code)}<p class="warn">{note.text}</p>{/each}
      {#if view.viewfinder.perspective.caution}<p class="warn">{view.viewfinder.perspective.caution}</p>{/if}
      {#if view.plan.movement}<p class={view.plan.movement.holds === false ? 'warn' : 'soft'}>
          {view.plan.movement.text}
        </p>{/if}
      {#if view.links.subject.text}<p class={view.links.subject.sharp ? 'soft' : 'warn'}>
          {view.links.subject.text}
        </p>{/if}
      <Drawings {bench} {view} {place} {names} />
      <TabPages label="Below the drawings" tabs={BENCH_TABS} value={tab} onchange={show}>
        {#snippet beside()}<button class="knob beside" onclick={() => void compare()}
            >{bench.state.pinned.length ? 'Compare with the pins' : 'Compare'}</button
          >
          {#if from}<button class="knob" onclick={() => void keep(from)}
              >Take back into shot {from.name}</button
            >{/if}
          <button class="knob" onclick={() => void keep(null)}>Keep as a shot</button>
          {#if kept && from}<a class="link" href={`${pathTo(bench.productionId, 'shots')}?shot=${from.key}`}
              >{kept}</a
            >{/if}{/snippet}
        {#if coming}
          {#await coming then { default: Page }}<Page {...below} />{/await}
        {:else}<FormatsTab {...below} />{/if}
      </TabPages>
    </div>
  {/if}
</ViewFrame>

<style>
  .content {
    display: grid;
    gap: 7px;
    grid-template-columns: minmax(0, 1fr);
  }
  .stale {
    opacity: 0.55;
  }
  .beside {
    margin-left: auto;
  }
</style>
