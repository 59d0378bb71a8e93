<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { aperture, mm } from '../../lib/format'
  import { linePath, type Axis, type Span } from '../../lib/plots'
  import type { CoverageView } from '../../lib/types'
  import PlotFrame from './PlotFrame.svelte'

  interface Props {
    along: NonNullable<CoverageView['along']>
    onset: (at: number | null) => void
  }
  let { along, onset }: Props = $props()

  /** Infinity has its place at the right end, so many pixels behind the last distance. */
  const BEHIND = 40
  const points = $derived(along.points.map((p) => ({ ...p, at: p.at ?? Infinity })))
  const finite = $derived(points.map((p) => p.at).filter(Number.isFinite))
  const axis = $derived(({ 0: from, 1: to }: Span): Axis => {
    const [first, last] = [Math.min(...finite), Math.max(...finite)]
    const scale = scaleLog()
      .domain([first, last > first ? last : first * 1.1])
      .range([from, to - (finite.length < points.length ? BEHIND : 0)])
    return (at) => (Number.isFinite(at) ? scale(at) : to)
  })
  const circles = $derived(points.map((p) => p.circle_mm))
  const up = $derived((pixels: Span) =>
    scaleLinear()
      .domain([Math.min(...circles, along.needed_mm) - 0.6, Math.max(...circles, along.safe_mm) + 0.6])
      .range(pixels),
  )
  const NAMES = { focal: 'focal length, mm', stop: 'stop', focus: 'focus, m' }
  const told = (at: number) =>
    at === Infinity ? '∞' : along.by === 'stop' ? aperture(at) : at < 10 ? at.toFixed(1) : at.toFixed(0)
  const every = $derived(Math.ceil(points.length / 9))
  const marks = $derived(
    points
      .filter((_, i) => i === 0 || i === points.length - 1 || i % every === 0)
      .map(({ at }) => ({ at, text: told(at) })),
  )
  let across: Axis | undefined
  function set(px: number) {
    const away = (at: number) => Math.abs((across?.(at) ?? 0) - px)
    const [nearest] = points.toSorted((a, b) => away(a.at) - away(b.at))
    onset(nearest && Number.isFinite(nearest.at) ? nearest.at : null)
  }
</script>

<PlotFrame
  title="Image circle along the {NAMES[along.by].replace(/,.*/, '')}"
  note="red: needed; dashes: 2 % to spare; click to set"
  label="Image circle along the {NAMES[along.by]}"
  height={130}
  room={{ left: 44, right: 16, top: 8, bottom: 24 }}
  across={(pixels) => (across = axis(pixels))}
  {up}
  marksAcross={marks}
  marksUp={[{ at: along.needed_mm, text: mm(along.needed_mm) }]}
  lined={false}
  onpick={set}
>
  {#snippet children({ x, y, left, right, top, bottom })}
    <rect
      class="short"
      x={left}
      width={right - left}
      y={y(along.needed_mm)}
      height={Math.max(bottom - y(along.needed_mm), 0)}
    />
    <line class="needed" x1={left} x2={right} y1={y(along.needed_mm)} y2={y(along.needed_mm)} />
    <line class="safe" x1={left} x2={right} y1={y(along.safe_mm)} y2={y(along.safe_mm)} />
    <path
      d={linePath(
        points.map((p) => [p.at, p.circle_mm]),
        x,
        y,
      )}
    />
    {#each points as p, i (i)}<circle class={p.verdict} cx={x(p.at)} cy={y(p.circle_mm)} r="2.6"
        ><title>{told(p.at)}: {mm(p.circle_mm)} mm</title></circle
      >{/each}
    <line class="now" x1={x(along.now ?? Infinity)} x2={x(along.now ?? Infinity)} y1={top} y2={bottom} />
  {/snippet}
</PlotFrame>

<style>
  .short {
    fill: color-mix(in srgb, var(--bad) 13%, transparent);
  }
  .needed {
    stroke: var(--bad);
  }
  .safe {
    stroke: var(--warn);
    stroke-dasharray: 5 4;
  }
  path {
    fill: none;
    stroke: var(--light);
    stroke-width: 1.6;
  }
  circle {
    fill: var(--ok);
  }
  circle.marginal {
    fill: var(--warn);
  }
  circle.short {
    fill: var(--bad);
  }
  .now {
    stroke: var(--accent);
    stroke-width: 1.6;
  }
</style>
