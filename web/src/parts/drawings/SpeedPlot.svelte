<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { mm, rate } from '../../lib/format'
  import { linePath, type Axis, type Span } from '../../lib/plots'
  import type { SpeedTable } from '../../lib/types'
  import { placeLabels } from './labels'
  import PlotFrame from './PlotFrame.svelte'

  interface Props {
    table: SpeedTable
    /** Scan mode whose row is under the pointer. */
    lit: number | null
    onlight: (modeId: number | null) => void
  }
  let { table, lit, onlight }: Props = $props()

  const points = $derived(
    table.modes.flatMap((m) =>
      m.progressive?.possible_fps ? [{ ...m, fps: m.progressive.possible_fps }] : [],
    ),
  )
  const heights = $derived(table.curves.flatMap((c) => c.points.map(([h = 0]) => h)))
  const rates = $derived([
    ...points.map((p) => p.fps),
    ...table.curves.flatMap((c) => c.points.map(([, f = 1]) => f)),
    table.wanted_fps,
  ])
  const tallest = $derived(Math.max(...heights, ...points.map((p) => p.height_mm), 1) * 1.03)
  const [slowest, fastest] = $derived([Math.min(...rates, 24) * 0.85, Math.max(...rates, 60) * 1.15])
  const across = $derived((pixels: Span) => scaleLinear().domain([0, tallest]).range(pixels))
  const up = $derived((pixels: Span) => scaleLog().domain([slowest, fastest]).range(pixels))
  const marksAcross = $derived(
    scaleLinear()
      .domain([0, tallest])
      .ticks(8)
      .map((at) => ({ at, text: String(at) })),
  )
  const DASHES = ['', '8 4', '2 3', '10 3 2 3']
  const SHAPES = [
    'M-4.5 0A4.5 4.5 0 1 0 4.5 0A4.5 4.5 0 1 0 -4.5 0Z',
    'M-4 -4H4V4H-4Z',
    'M0 -5.5L5.5 0L0 5.5L-5.5 0Z',
    'M0 -5L5 4H-5Z',
  ]
  const RATES = [12, 24, 30, 50, 60, 100, 120, 200, 240, 400, 500, 1000, 2000, 5000, 10000]
  const marksUp = $derived(
    RATES.filter((r) => r >= slowest && r <= fastest).map((at) => ({ at, text: String(at) })),
  )
  const labelled = $derived((x: Axis, y: Axis, right: number) =>
    placeLabels(
      points.map((p) => ({ id: p.mode_id, x: x(p.height_mm), y: y(p.fps), text: p.name })),
      right + 22,
    ),
  )
  /** One sign for each body: a dash for its lines, a shape for its points. */
  const bodies = $derived([...new Map(table.modes.map((m) => [m.body_id, m.body]))])
  const order = $derived(new Map(bodies.map(([id], i) => [id, i])))
  const dash = (body: number) => DASHES[(order.get(body) ?? 0) % DASHES.length]
  const shape = (body: number) => SHAPES[(order.get(body) ?? 0) % SHAPES.length]
</script>

<div class="holds">
  <PlotFrame
    title="Highest rate against window height"
    note="a point for each scan mode, a line for each way in which a sensor is read"
    label="Highest rate against window height of all scan modes"
    room={{ left: 56, right: 26, top: 10, bottom: 34 }}
    {across}
    {up}
    {marksAcross}
    {marksUp}
    unitAcross="window height, mm"
    unitUp="fps"
  >
    {#snippet children({ x, y, left, right })}
      {#each table.curves as curve, i (i)}
        <path
          class="curve"
          stroke-dasharray={dash(curve.body_id)}
          d={linePath(
            curve.points.map(([h = 0, fps = 1]) => [h, fps]),
            x,
            y,
          )}><title>{curve.name}</title></path
        >
      {/each}
      <line
        class="wanted"
        data-testid="wanted-rate"
        x1={left}
        x2={right}
        y1={y(table.wanted_fps)}
        y2={y(table.wanted_fps)}
      />
      <text class="wanted-text" x={left + 6} y={y(table.wanted_fps) - 5}
        >wanted {rate(table.wanted_fps)} fps</text
      >
      {#each points as p (p.mode_id)}
        <!-- Lights up its row; the row says all of it by keyboard. -->
        <!-- svelte-ignore a11y_no_static_element_interactions -->
        <path
          class="point"
          class:lit={p.mode_id === lit}
          class:bound={p.progressive?.limited_by !== 'readout'}
          data-mode={p.mode_id}
          transform="translate({x(p.height_mm)} {y(p.fps)})"
          d={shape(p.body_id)}
          onpointerenter={() => onlight(p.mode_id)}
          onpointerleave={() => onlight(null)}
          ><title
            >{p.body}, {p.name}: {p.progressive?.text} fps, {mm(p.width_mm)} × {mm(p.height_mm)} mm</title
          ></path
        >
      {/each}
      {#each labelled(x, y, right) as label (label.id)}
        <text class="label" class:lit={label.id === lit} x={label.x} y={label.y}>{label.text}</text>
      {/each}
    {/snippet}
    {#snippet key()}
      <p class="soft key">
        {#each bodies as [id, name] (id)}
          <span class="sign"
            ><svg width="46" height="12" aria-hidden="true"
              ><path class="curve" stroke-dasharray={dash(id)} d="M0 6H46" /><path
                class="point"
                transform="translate(23 6)"
                d={shape(id)}
              /></svg
            >
            {name}</span
          >
        {/each}
        <span>filled: bound by the readout; hollow: by something else, so it lies below its line</span>
      </p>
    {/snippet}
  </PlotFrame>
</div>

<style>
  .holds {
    height: 340px;
  }
  .holds :global(figure) {
    height: 100%;
  }
  .sign {
    display: inline-flex;
    align-items: center;
    gap: 0.4rem;
  }
  .curve {
    fill: none;
    stroke: var(--light);
    stroke-width: 1.3;
  }
  .wanted {
    stroke: var(--accent);
    stroke-width: 1.6;
  }
  .wanted-text {
    fill: var(--accent);
  }
  .point {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  path.bound {
    fill: var(--panel);
  }
  path.lit {
    stroke: var(--accent);
    stroke-width: 3;
  }
  .label {
    fill: var(--ink);
    pointer-events: none;
  }
  .label.lit {
    fill: var(--accent);
  }
</style>
