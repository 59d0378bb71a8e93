<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { mm, rate } from '../../lib/format'
  import type { SpeedTable } from '../../lib/types'
  import { placeLabels } from './labels'

  interface Props {
    table: SpeedTable
    /** Scan mode whose row is under the pointer. */
    lit: number | null
    onlight: (modeId: number | null) => void
  }
  let { table, lit, onlight }: Props = $props()

  let width = $state(900)
  let height = $state(300)
  const LEFT = 46
  const RIGHT = 26
  const TOP = 10
  const BOTTOM = 34

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
  const x = $derived(
    scaleLinear()
      .domain([0, Math.max(...heights, ...points.map((p) => p.height_mm), 1) * 1.03])
      .range([LEFT, width - RIGHT]),
  )
  const y = $derived(
    scaleLog()
      .domain([Math.min(...rates, 24) * 0.85, Math.max(...rates, 60) * 1.15])
      .range([height - BOTTOM, TOP]),
  )
  const DASHES = ['', '8 4', '2 3', '10 3 2 3']
  const SHAPES = [
    'M-4.5 0A4.5 4.5 0 1 0 4.5 0A4.5 4.5 0 1 0 -4.5 0Z',
    'M-4 -4H4V4H-4Z',
    'M0 -5.5L5.5 0L0 5.5L-5.5 0Z',
    'M0 -5L5 4H-5Z',
  ]
  const RATES = [12, 24, 30, 50, 60, 100, 120, 200, 240, 400, 500, 1000, 2000, 5000, 10000]
  const shownRates = $derived(RATES.filter((r) => r >= (y.domain()[0] ?? 0) && r <= (y.domain()[1] ?? 0)))
  const line = $derived((curve: number[][]) =>
    curve.map(([h = 0, f = 1], i) => `${i ? 'L' : 'M'}${x(h).toFixed(1)} ${y(f).toFixed(1)}`).join(''),
  )
  const labels = $derived(
    placeLabels(
      points.map((p) => ({ id: p.mode_id, x: x(p.height_mm), y: y(p.fps), text: p.name })),
      width - 4,
    ),
  )
  /** One sign for each body: a dash for its lines, a shape for its points. */
  const bodies = $derived([...new Map(table.modes.map((m) => [m.body_id, m.body]))])
  const order = $derived(new Map(bodies.map(([id], i) => [id, i])))
  const dash = (body: number) => DASHES[(order.get(body) ?? 0) % DASHES.length]
  const shape = (body: number) => SHAPES[(order.get(body) ?? 0) % SHAPES.length]
</script>

<figure class="drawing halo">
  <figcaption>
    Highest rate against window height
    <span class="soft">· a point for each scan mode, a line for each way in which a sensor is read</span>
  </figcaption>
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <svg {width} {height} role="img" aria-label="Highest rate against window height of all scan modes">
      {#each shownRates as r (r)}
        <line class="gridline" x1={LEFT} x2={width - RIGHT} y1={y(r)} y2={y(r)} />
        <text class="figure tick" x={LEFT - 6} y={y(r) + 4} text-anchor="end">{r}</text>
      {/each}
      {#each x.ticks(8) as h (h)}
        <line class="gridline" x1={x(h)} x2={x(h)} y1={TOP} y2={height - BOTTOM} />
        <text class="figure tick" x={x(h)} y={height - BOTTOM + 15} text-anchor="middle">{h}</text>
      {/each}
      <text class="tick" x={width - RIGHT} y={height - 4} text-anchor="end">window height, mm</text>
      <text class="tick" x="4" y={TOP + 4}>fps</text>
      {#each table.curves as curve, i (i)}
        <path class="curve" stroke-dasharray={dash(curve.body_id)} d={line(curve.points)}
          ><title>{curve.name}</title></path
        >
      {/each}
      <line
        class="wanted"
        data-testid="wanted-rate"
        x1={LEFT}
        x2={width - RIGHT}
        y1={y(table.wanted_fps)}
        y2={y(table.wanted_fps)}
      />
      <text class="wanted-text" x={LEFT + 6} y={y(table.wanted_fps) - 5}
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
      {#each labels as label (label.id)}
        <text class="label" class:lit={label.id === lit} x={label.x} y={label.y}>{label.text}</text>
      {/each}
    </svg>
  </div>
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
</figure>

<style>
  figure {
    height: 340px;
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
