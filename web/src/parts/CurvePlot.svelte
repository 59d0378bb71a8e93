<script lang="ts" module>
  export interface Curve {
    id: number
    name: string
    chosen: boolean
    /** Lower edge, or the only line; x and y. */
    low: [number, number][]
    /** Upper edge; beyond the drawing where it is null (infinity). */
    high?: [number, number | null][]
  }
</script>

<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'

  interface Props {
    title: string
    curves: Curve[]
    xLabel: string
    yLabel: string
    /** Figures to mark on the axes. */
    xTicks: { at: number; text: string }[]
    yTicks: { at: number; text: string }[]
    xRange: [number, number]
    yRange: [number, number]
    /** Both axes grow by ratios, or only the one across. */
    yLog?: boolean
    /** Where the Bench stands now. */
    here?: number | null
  }
  let {
    title,
    curves,
    xLabel,
    yLabel,
    xTicks,
    yTicks,
    xRange,
    yRange,
    yLog = true,
    here = null,
  }: Props = $props()

  let width = $state(360)
  const HEIGHT = 230
  const [LEFT, RIGHT, TOP, BOTTOM] = [52, 10, 8, 34]
  const id = $props.id()
  const x = $derived(
    scaleLog()
      .domain(xRange)
      .range([LEFT, width - RIGHT]),
  )
  const y = $derived(
    (yLog ? scaleLog() : scaleLinear()).domain(yRange).range([HEIGHT - BOTTOM, TOP]) as (v: number) => number,
  )
  const clampY = $derived((v: number) => Math.max(-50, Math.min(HEIGHT + 50, y(v))))
  const line = $derived((points: [number, number | null][]) =>
    points
      .map(([a, b], i) => `${i ? 'L' : 'M'}${x(a).toFixed(1)} ${(b === null ? -50 : clampY(b)).toFixed(1)}`)
      .join(''),
  )
  const band = $derived((curve: Curve) =>
    curve.high ? `${line(curve.low)}${line(curve.high.toReversed()).replace('M', 'L')}Z` : '',
  )
  const DASHES = ['', '7 4', '2 3', '10 3 2 3', '1 5']
</script>

<figure bind:clientWidth={width}>
  <figcaption>{title}</figcaption>
  <svg {width} height={HEIGHT} role="img" aria-label="{title}: {curves.map((c) => c.name).join(', ')}">
    <defs
      ><clipPath {id}
        ><rect
          x={LEFT}
          y={TOP}
          width={Math.max(width - LEFT - RIGHT, 1)}
          height={HEIGHT - TOP - BOTTOM}
        /></clipPath
      ></defs
    >
    {#each xTicks as tick (tick.at)}
      <line class="grid" x1={x(tick.at)} x2={x(tick.at)} y1={TOP} y2={HEIGHT - BOTTOM} />
      <text class="figure" x={x(tick.at)} y={HEIGHT - BOTTOM + 14} text-anchor="middle">{tick.text}</text>
    {/each}
    {#each yTicks as tick (tick.at)}
      <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick.at)} y2={y(tick.at)} />
      <text class="figure" x={LEFT - 5} y={y(tick.at) + 4} text-anchor="end">{tick.text}</text>
    {/each}
    <text x={(LEFT + width - RIGHT) / 2} y={HEIGHT - 4} text-anchor="middle">{xLabel}</text>
    <text transform="translate(11 {(HEIGHT - BOTTOM + TOP) / 2}) rotate(-90)" text-anchor="middle"
      >{yLabel}</text
    >
    <g clip-path="url(#{id})">
      {#if here !== null}<line class="here" x1={x(here)} x2={x(here)} y1={TOP} y2={HEIGHT - BOTTOM} />{/if}
      {#each curves.toReversed() as curve (curve.id)}
        {@const dash = DASHES[curves.indexOf(curve) % DASHES.length]}
        <g class:chosen={curve.chosen} class="curve" data-format={curve.id}>
          <title>{curve.name}</title>
          {#if curve.chosen && curve.high}<path class="band" d={band(curve)} />{/if}
          <path d={line(curve.low)} stroke-dasharray={dash} />
          {#if curve.high}<path d={line(curve.high)} stroke-dasharray={dash} />{/if}
        </g>
      {/each}
    </g>
  </svg>
</figure>

<style>
  figure {
    min-width: 0;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  figcaption {
    padding: 4px 10px 0;
    font-size: 13px;
  }
  svg {
    display: block;
  }
  text {
    font-size: 11px;
    fill: var(--ink-soft);
  }
  .grid {
    stroke: var(--line);
    opacity: 0.55;
  }
  .here {
    stroke: var(--ink-soft);
    stroke-dasharray: 1 3;
  }
  .curve path {
    fill: none;
    stroke: var(--light);
    stroke-width: 1.6;
  }
  .chosen path {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .chosen .band {
    fill: var(--accent-fill);
    stroke: none;
  }
</style>
