<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { bandPath, linePath } from '../../lib/curves'
  import type { DepthPlot } from '../../lib/depthPlots'

  interface Props {
    title: string
    plot: DepthPlot
    xLabel: string
    yLabel: string
    /** Figures to mark on the axes. */
    xTicks: { at: number; text: string }[]
    yTicks: { at: number; text: string }[]
    /** Both axes grow by ratios, or only the one across. */
    yLog?: boolean
    /** Where the Bench stands now. */
    here?: number | null
  }
  let { title, plot, xLabel, yLabel, xTicks, yTicks, yLog = true, here = null }: Props = $props()

  let width = $state(360)
  const HEIGHT = 230
  const [LEFT, RIGHT, TOP, BOTTOM] = [52, 10, 8, 34]
  const id = $props.id()
  const x = $derived(
    scaleLog()
      .domain(plot.x)
      .range([LEFT, width - RIGHT]),
  )
  const y = $derived(
    (yLog ? scaleLog() : scaleLinear()).domain(plot.y).range([HEIGHT - BOTTOM, TOP]) as (v: number) => number,
  )
  const clampY = $derived((v: number) => Math.max(-50, Math.min(HEIGHT + 50, y(v))))
  const BEYOND = -50
  const DASHES = ['', '7 4', '2 3', '10 3 2 3', '1 5']
  const line = $derived((points: [number, number | null][]) => linePath(points, x, clampY, BEYOND))
</script>

<figure class="drawing" bind:clientWidth={width}>
  <figcaption>{title}</figcaption>
  <svg {width} height={HEIGHT} role="img" aria-label="{title}: {plot.curves.map((c) => c.name).join(', ')}">
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
      <line class="gridline" x1={x(tick.at)} x2={x(tick.at)} y1={TOP} y2={HEIGHT - BOTTOM} />
      <text class="figure" x={x(tick.at)} y={HEIGHT - BOTTOM + 14} text-anchor="middle">{tick.text}</text>
    {/each}
    {#each yTicks as tick (tick.at)}
      <line class="gridline" x1={LEFT} x2={width - RIGHT} y1={y(tick.at)} y2={y(tick.at)} />
      <text class="figure" x={LEFT - 5} y={y(tick.at) + 4} text-anchor="end">{tick.text}</text>
    {/each}
    <text x={(LEFT + width - RIGHT) / 2} y={HEIGHT - 4} text-anchor="middle">{xLabel}</text>
    <text transform="translate(11 {(HEIGHT - BOTTOM + TOP) / 2}) rotate(-90)" text-anchor="middle"
      >{yLabel}</text
    >
    <g clip-path="url(#{id})">
      {#if here !== null}<line class="here" x1={x(here)} x2={x(here)} y1={TOP} y2={HEIGHT - BOTTOM} />{/if}
      {#each plot.curves.toReversed() as curve (curve.id)}
        {@const dash = DASHES[plot.curves.indexOf(curve) % DASHES.length]}
        <g class:chosen={curve.chosen} class="curve" data-format={curve.id}>
          <title>{curve.name}</title>
          {#if curve.chosen && curve.high}<path class="band" d={bandPath(curve, x, clampY, BEYOND)} />{/if}
          <path d={line(curve.low)} stroke-dasharray={dash} />
          {#if curve.high}<path d={line(curve.high)} stroke-dasharray={dash} />{/if}
        </g>
      {/each}
    </g>
  </svg>
</figure>

<style>
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
