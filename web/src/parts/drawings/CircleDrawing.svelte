<script lang="ts">
  import { mm } from '../../lib/format'
  import type { LensDocument, LensFigures } from '../../lib/types'

  interface Props {
    lens: LensDocument
    figures: LensFigures | undefined
    /** Usual windows, mm, the largest first. */
    windows: { name: string; width: number; height: number }[]
  }
  let { lens, figures, windows }: Props = $props()

  let width = $state(320)
  let height = $state(230)
  const circles = $derived(figures?.circle_mm ?? [])
  const largest = $derived(Math.max(...circles, 0))
  const shown = $derived(windows.filter((w) => w.width <= Math.max(largest * 1.6, 26)))
  const wide = $derived(Math.max(largest, ...shown.map((w) => w.width), 10) + 3)
  const high = $derived(Math.max(largest, ...shown.map((w) => w.height), 8) + 3)
  const scale = $derived(Math.min(width / wide, height / high))
  const names = $derived([...new Set(circles.map((c) => mm(c)))])
</script>

<figure class="drawing">
  <figcaption>
    {lens.name}
    <span class="soft"
      >· {names.length ? `image circle Ø ${names.join('–')} mm, to scale` : 'image circle not stated'}</span
    >
  </figcaption>
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <svg {width} {height} role="img" aria-label="Image circle of {lens.name} over the usual windows">
      <g transform="translate({width / 2} {height / 2}) scale({scale})">
        {#each circles as c, i (i)}
          <circle
            class="circle"
            class:outer={i > 0}
            r={c / 2}
            stroke-width={1.6 / scale}
            stroke-dasharray={i > 0 ? `${5 / scale} ${4 / scale}` : undefined}
          />
        {/each}
        {#each shown as w (w.name)}
          {@const covered = largest > 0 && (circles[0] ?? 0) >= Math.hypot(w.width, w.height)}
          <rect
            class:covered
            x={-w.width / 2}
            y={-w.height / 2}
            width={w.width}
            height={w.height}
            stroke-width={1 / scale}
            stroke-dasharray={covered ? undefined : `${3 / scale} ${3 / scale}`}
          />
          <text
            x={-w.width / 2 + 4 / scale}
            y={-w.height / 2 + 13 / scale}
            style:font-size="{12 / scale}px"
            stroke-width={3 / scale}>{w.name} {circles.length ? (covered ? '✓' : '✗') : ''}</text
          >
        {/each}
      </g>
    </svg>
  </div>
</figure>

<style>
  figure {
    height: 270px;
  }
  .circle {
    fill: var(--light-fill);
    stroke: var(--light);
  }
  .outer {
    fill: none;
  }
  rect {
    fill: none;
    stroke: var(--bad);
  }
  rect.covered {
    stroke: var(--ink-soft);
  }
  text {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--panel);
  }
</style>
