<script lang="ts">
  import * as client from '../../lib/client'
  import { limits, limitsText } from '../../lib/figures'
  import { aperture, distanceWithUnit } from '../../lib/format'
  import { Look } from '../../lib/look.svelte'
  import { logTicks } from '../../lib/ticks'
  import type { BenchState, DepthAsk, DepthView, StopAnswer } from '../../lib/types'
  import CurvePlot, { type Curve } from '../../parts/CurvePlot.svelte'
  import DistanceField from '../../parts/DistanceField.svelte'
  import NumberField from '../../parts/NumberField.svelte'

  interface Props {
    productionId: number
    state: BenchState
    /** Names of formats by id. */
    names: Map<number, string>
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { productionId, state: bench, names, onchange }: Props = $props()

  let near = $state(0)
  let far = $state<number | null>(0)
  let softness = $state(2)
  let background = $state<number | null>(null)
  let copied = $state('')
  // What is asked begins around the subject as it stood when the tab was opened.
  const begin = () => {
    near = Number((bench.subject_m * 0.8).toFixed(2))
    far = Number((bench.subject_m * 1.4).toFixed(2))
  }
  begin()

  const ask = (): DepthAsk => ({
    state: bench,
    hold_near_m: near,
    hold_far_m: far,
    background_m: background,
    softness_percent: softness,
  })
  const look = new Look(ask, (asked, signal) => client.viewDepth(productionId, asked, signal))
  // Whenever anything that is asked changes; the question itself is made at the moment of asking.
  $effect(() => {
    ask()
    look.want()
  })

  const view = $derived(look.answer)
  const marks = $derived(view?.table?.marks ?? 'T')
  const mark = (value: number | null) => (value === null ? '' : `${marks}${aperture(value)}`)

  function take(answer: StopAnswer) {
    if (answer.mark === null || answer.focus_m === null) return
    const focus_m =
      Math.abs(answer.focus_m - bench.subject_m) < 0.0005 ? null : Number(answer.focus_m.toFixed(4))
    onchange({ stop: answer.mark, focus_m })
  }

  /** The look's rule becomes that of the production, and the look goes by it. */
  async function makeProductions() {
    const kept = await client.readSettings(productionId)
    const problem =
      kept.problem ??
      (
        await client.writeSettings(productionId, kept.data.version, {
          ...kept.data.settings,
          coc: bench.coc ?? kept.data.settings.coc,
        })
      ).problem
    copied = problem?.message ?? ''
    if (!problem) onchange({ coc: null })
  }

  async function copyTable() {
    const { data, problem } = await client.depthTable(productionId, ask())
    if (data === undefined) copied = problem.message
    else {
      await navigator.clipboard.writeText(data)
      copied = 'The table is on the clipboard.'
    }
  }

  const FOOT_M = 0.3048
  /** Round figures of the unit along a scale of distances; whole feet, or inches below one. */
  function distanceTicks(low: number, high: number) {
    if (bench.unit === 'm') return logTicks(low, high).map((at) => ({ at, text: String(at) }))
    return logTicks(low / FOOT_M, high / FOOT_M).map((feet) => ({
      at: feet * FOOT_M,
      text: feet < 1 ? `${Number((feet * 12).toFixed(1))}"` : `${Number(feet.toFixed(1))}'`,
    }))
  }
  type Plot = { curves: Curve[]; x: [number, number]; y: [number, number] }
  function plot(view: DepthView, which: 'by_distance' | 'by_stop'): Plot {
    const curves = view.curves.map((c): Curve => ({
      id: c.format_id,
      name: names.get(c.format_id) ?? '',
      chosen: c.chosen,
      low: c[which].map((p) => [p.x, p.near_m]),
      high: c[which].map((p) => [p.x, p.far_m]),
    }))
    const xs = view.curves.flatMap((c) => c[which].map((p) => p.x))
    const ys = view.curves.flatMap((c) => c[which].flatMap((p) => [p.near_m, p.far_m ?? p.near_m]))
    const top = Math.min(
      Math.max(...ys) * 1.1,
      Math.max(...view.curves.flatMap((c) => c[which].map((p) => p.near_m))) * 6,
    )
    return { curves, x: [Math.min(...xs), Math.max(...xs)], y: [Math.min(...ys) * 0.95, top] }
  }
  const byDistance = $derived(view?.curves.length ? plot(view, 'by_distance') : null)
  const byStop = $derived(view?.curves.length ? plot(view, 'by_stop') : null)
  const blur = $derived.by(() => {
    if (!view?.curves.length) return null
    const curves = view.curves.map((c): Curve => ({
      id: c.format_id,
      name: names.get(c.format_id) ?? '',
      chosen: c.chosen,
      low: c.blur.map((p) => [p.x, p.percent]),
    }))
    const xs = curves.flatMap((c) => c.low.map(([a]) => a))
    const top = Math.max(...view.curves.map((c) => c.blur_at_infinity)) * 1.08
    return { curves, x: [Math.min(...xs), Math.max(...xs)] as [number, number], top }
  })
  const stopTicks = $derived(
    (byStop?.curves[0]?.low ?? [])
      .map(([at]) => at)
      .filter((_, i, all) => i % Math.max(1, Math.ceil(all.length / 8)) === 0)
      .map((at) => ({ at, text: aperture(at) })),
  )
  const percentTicks = $derived.by(() => {
    if (!blur) return []
    const step = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].find((s) => blur.top / s <= 6) ?? 100
    return Array.from({ length: Math.floor(blur.top / step) + 1 }, (_, i) => ({
      at: i * step,
      text: `${Number((i * step).toFixed(1))}`,
    }))
  })
</script>

{#snippet answered(title: string, answer: StopAnswer | null)}
  {#if answer}
    <p class="answer">
      {#if title}<span class="soft">{title}</span>{/if}
      <span class:warn={answer.mark === null || answer.too_close}>{answer.text}</span>
      {#if answer.next}<span class="soft">{answer.next}</span>{/if}
      {#if answer.mark !== null && !answer.too_close}
        <button class="knob small" onclick={() => take(answer)}>Set {mark(answer.mark)}</button>
      {/if}
    </p>
  {/if}
{/snippet}

<section aria-label="Depth" class="depth">
  {#if look.problem?.faults.length === 0}<p class="bad" role="alert">{look.problem.message}</p>{/if}
  {#if view}
    <p>
      {view.rule.text}
      <span class="soft"
        >{view.rule.own ? 'This look has a rule of its own.' : "It is the production's rule."}</span
      >
      {#if view.rule.own}<button class="knob small" onclick={() => void makeProductions()}
          >Make it the production's rule</button
        >{/if}
      {view.aperture.text}
    </p>
    <div class="asks">
      <section aria-label="Hold from here to there">
        <h2>Hold from here to there</h2>
        <p class="row">
          from <DistanceField
            label="Hold from"
            metres={near}
            unit={bench.unit}
            read={client.readDistance}
            onchange={(m) => (near = m)}
          />
          to {#if far !== null}<DistanceField
              label="Hold to"
              metres={far}
              unit={bench.unit}
              read={client.readDistance}
              onchange={(m) => (far = m)}
            />{/if}
          <button
            class="knob small"
            aria-pressed={far === null}
            onclick={() => (far = far === null ? near * 2 : null)}>infinity</button
          >
        </p>
        {@render answered('', view.hold)}
      </section>
      <section aria-label="Hold a movement">
        <h2>Hold a movement</h2>
        <p class="row">
          back and forth over
          {#if bench.movement_m > 0}<DistanceField
              label="Movement"
              metres={bench.movement_m}
              unit={bench.unit}
              read={client.readDistance}
              onchange={(movement_m, kind) => onchange({ movement_m }, kind)}
            />
            <button class="knob small" onclick={() => onchange({ movement_m: 0 })}>none</button>
          {:else}<button class="knob small" onclick={() => onchange({ movement_m: 0.4 })}
              >{distanceWithUnit(0.4, bench.unit)}</button
            >{/if}
        </p>
        {#if view.movement}
          {@render answered('Focus held on the subject:', view.movement.kept)}
          {@render answered('Best focus:', view.movement.best)}
        {/if}
      </section>
      <section aria-label="A background this soft">
        <h2>A background this soft</h2>
        <p class="row">
          <NumberField
            label="Softness, per cent of the width"
            value={softness}
            size={4}
            fault={look.problem?.faults.find((f) => f.field === 'softness_percent')?.rule}
            onchange={(value) => (softness = value ?? 2)}
          /> % of the width, at
          {#if background !== null}<DistanceField
              label="Background at"
              metres={background}
              unit={bench.unit}
              read={client.readDistance}
              onchange={(m) => (background = m)}
            />{/if}
          <button
            class="knob small"
            aria-pressed={background === null}
            onclick={() =>
              (background = background === null ? Number((bench.subject_m * 2).toFixed(2)) : null)}
            >infinity</button
          >
        </p>
        {@render answered('', view.softness)}
      </section>
      <section aria-label="Most depth">
        <h2>Most depth at this stop</h2>
        {#if view.most}
          {@const most = view.most}
          <p class="answer">
            {most.text}
            <button class="knob small" onclick={() => onchange({ focus_m: Number(most.focus_m.toFixed(3)) })}
              >Focus there</button
            >
          </p>
        {/if}
      </section>
    </div>
    {#if byDistance && byStop && blur}
      <div class="plots">
        <CurvePlot
          title="In focus, by distance"
          curves={byDistance.curves}
          xRange={byDistance.x}
          yRange={byDistance.y}
          xTicks={distanceTicks(...byDistance.x)}
          yTicks={distanceTicks(...byDistance.y)}
          xLabel="focus at, {bench.unit}"
          yLabel="near and far, {bench.unit}"
          here={bench.focus_m ?? bench.subject_m}
        />
        <CurvePlot
          title="In focus, by stop"
          curves={byStop.curves}
          xRange={byStop.x}
          yRange={byStop.y}
          xTicks={stopTicks}
          yTicks={distanceTicks(...byStop.y)}
          xLabel={marks}
          yLabel="near and far, {bench.unit}"
          here={bench.stop}
        />
        <CurvePlot
          title="Blur of a background, by its distance"
          curves={blur.curves}
          xRange={blur.x}
          yRange={[0, blur.top]}
          yLog={false}
          xTicks={distanceTicks(...blur.x)}
          yTicks={percentTicks}
          xLabel="background at, {bench.unit}"
          yLabel="% of the width"
        />
      </div>
      <p class="soft key">
        {#each view.curves as c, i (c.format_id)}<span
            ><span class="dash" class:accent={c.chosen}
              >{['———', '– – –', '· · · ·', '—·—·', '·  ·  ·'][i]}</span
            >
            {names.get(c.format_id)}, sharp to {c.coc_mm.toFixed(4)} mm</span
          >{/each}
        <span>Pin formats in the list of formats to compare them here.</span>
      </p>
    {/if}
    {#if view.table}
      <div class="head">
        <h2>Depth table</h2>
        <button class="knob small" onclick={() => void copyTable()}>Copy as CSV</button>
        <span class="soft" role="status">{copied}</span>
      </div>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div class="wide" role="group" aria-label="Depth table" tabindex="0">
        <table>
          <thead>
            <tr
              ><th>Distance</th>{#each view.table.stops as stop (stop)}<th class="n figure">{mark(stop)}</th
                >{/each}</tr
            >
            <tr
              ><th>Hyperfocal</th>{#each view.table.hyperfocal_m as at, i (i)}<th class="n figure"
                  >{distanceWithUnit(at, bench.unit)}</th
                >{/each}</tr
            >
          </thead>
          <tbody>
            {#each view.table.rows as row (row.distance_m)}
              <tr>
                <th class="figure">{distanceWithUnit(row.distance_m, bench.unit)}</th>
                {#each row.cells as cell, i (i)}<td class="n figure"
                    >{limitsText(limits(cell.near_m, cell.far_m, row.distance_m, bench.unit))}</td
                  >{/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
  {/if}
</section>

<style>
  .depth {
    display: grid;
    gap: 10px;
    grid-template-columns: minmax(0, 1fr);
  }
  h2 {
    font-size: 15px;
    font-weight: 600;
  }
  .asks {
    display: grid;
    gap: 12px 26px;
    grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.5rem;
    align-items: center;
    min-height: 30px;
  }
  .answer {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.5rem;
    align-items: baseline;
  }
  .small {
    min-height: 26px;
    padding: 0 0.5rem;
  }
  .warn {
    color: var(--warn);
  }
  .bad {
    color: var(--bad);
  }
  .plots {
    display: grid;
    gap: 10px;
    grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  }
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 1.4rem;
    font-size: 13px;
  }
  .dash {
    color: var(--light);
    white-space: pre;
  }
  .dash.accent {
    color: var(--accent);
  }
  .head {
    display: flex;
    gap: 0.8rem;
    align-items: baseline;
  }
  .wide {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    font-size: 14px;
  }
  th,
  td {
    padding: 1px 14px 1px 0;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
    text-align: left;
    white-space: nowrap;
  }
  thead th {
    color: var(--ink-soft);
  }
  .n {
    text-align: right;
  }
</style>
