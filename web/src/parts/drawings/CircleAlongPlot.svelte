<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { aperture, mm } from '../../lib/format'
  import type { CoverageView } from '../../lib/types'

  interface Props {
    along: NonNullable<CoverageView['along']>
    onset: (at: number | null) => void
  }
  let { along, onset }: Props = $props()

  let width = $state(600)
  const height = 130
  const LEFT = 44
  const RIGHT = 16
  const TOP = 8
  const BOTTOM = 24

  const places = $derived(along.points.map((p) => p.at ?? Infinity))
  const finite = $derived(places.filter(Number.isFinite))
  const first = $derived(Math.min(...finite))
  const last = $derived(Math.max(...finite))
  // Infinity has its place at the right end.
  const room = $derived(places.includes(Infinity) ? 40 : 0)
  const scale = $derived(
    scaleLog()
      .domain([first, last > first ? last : first * 1.1])
      .range([LEFT, width - RIGHT - room]),
  )
  const x = (at: number | null) => (at === null || !Number.isFinite(at) ? width - RIGHT : scale(at))
  const circles = $derived(along.points.map((p) => p.circle_mm))
  const y = $derived(
    scaleLinear()
      .domain([Math.min(...circles, along.needed_mm) - 0.6, Math.max(...circles, along.safe_mm) + 0.6])
      .range([height - BOTTOM, TOP]),
  )
  const line = $derived(
    along.points.map((p, i) => `${i ? 'L' : 'M'}${x(p.at).toFixed(1)} ${y(p.circle_mm).toFixed(1)}`).join(''),
  )
  const NAMES = { focal: 'focal length, mm', stop: 'stop', focus: 'focus, m' }
  const told = (at: number | null) =>
    at === null ? '∞' : along.by === 'stop' ? aperture(at) : at < 10 ? at.toFixed(1) : at.toFixed(0)
  const marks = $derived(
    along.points.filter(
      (_, i) => i === 0 || i === along.points.length - 1 || i % Math.ceil(along.points.length / 9) === 0,
    ),
  )
  const nearest = (px: number) =>
    along.points.toSorted((a, b) => Math.abs(x(a.at) - px) - Math.abs(x(b.at) - px))[0]
</script>

<figure class="drawing">
  <figcaption>
    Image circle along the {NAMES[along.by].replace(/,.*/, '')}
    <span class="soft">· red: needed; dashes: 2 % to spare; click to set</span>
  </figcaption>
  <div class="canvas own" bind:clientWidth={width}>
    <!-- The same value is set in its field by keyboard. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      {width}
      {height}
      role="img"
      aria-label="Image circle along the {NAMES[along.by]}"
      onclick={(event) => onset(nearest(event.offsetX)?.at ?? null)}
    >
      <rect
        class="short"
        x={LEFT}
        width={width - LEFT - RIGHT}
        y={y(along.needed_mm)}
        height={Math.max(height - BOTTOM - y(along.needed_mm), 0)}
      />
      <line class="needed" x1={LEFT} x2={width - RIGHT} y1={y(along.needed_mm)} y2={y(along.needed_mm)} />
      <line class="safe" x1={LEFT} x2={width - RIGHT} y1={y(along.safe_mm)} y2={y(along.safe_mm)} />
      <text class="figure" x={LEFT - 5} y={y(along.needed_mm) + 4} text-anchor="end"
        >{mm(along.needed_mm)}</text
      >
      <path d={line} />
      {#each along.points as p, i (i)}<circle class={p.verdict} cx={x(p.at)} cy={y(p.circle_mm)} r="2.6"
          ><title>{told(p.at)}: {mm(p.circle_mm)} mm</title></circle
        >{/each}
      <line class="now" x1={x(along.now)} x2={x(along.now)} y1={TOP} y2={height - BOTTOM} />
      {#each marks as p (p.at)}<text class="figure" x={x(p.at)} y={height - 8} text-anchor="middle"
          >{told(p.at)}</text
        >{/each}
    </svg>
  </div>
</figure>

<style>
  svg {
    display: block;
    cursor: crosshair;
  }
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
