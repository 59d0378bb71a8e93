<script lang="ts">
  import type { Production } from '../../lib/types'

  interface Props {
    bodies: Production['glance']['bodies']
    /** Width and height in mm that the drawing has room for. */
    largest: [number, number]
  }
  let { bodies, largest }: Props = $props()

  const HEIGHT = 64
  const GAP = 8
  const scale = $derived(HEIGHT / largest[1])
  /** Where each sensor begins, from the left. */
  const places = $derived(
    bodies.map((_, i) =>
      bodies.slice(0, i).reduce((x, body) => x + (body.sensor_mm[0] ?? 0) * scale + GAP, 1),
    ),
  )
  const width = $derived((places.at(-1) ?? 0) + (bodies.at(-1)?.sensor_mm[0] ?? 0) * scale + 1)
</script>

<svg
  {width}
  height={HEIGHT + 2}
  role="img"
  aria-label="Windows to scale: {bodies.map((b) => b.body).join(', ')}"
>
  {#each bodies as { body, sensor_mm: [w = 0, h = 0], windows_mm }, i (i)}
    {@const [x, y] = [(places[i] ?? 0) + (w * scale) / 2, HEIGHT / 2 + 1]}
    <g transform="translate({x} {y}) scale({scale})">
      <title>{body}: {w.toFixed(1)} × {h.toFixed(1)} mm</title>
      <rect class="sensor" x={-w / 2} y={-h / 2} width={w} height={h} />
      {#each windows_mm as [ww = 0, wh = 0], k (k)}
        <rect class="window" x={-ww / 2} y={-wh / 2} width={ww} height={wh} />
      {/each}
    </g>
  {/each}
</svg>

<style>
  svg {
    max-width: 100%;
  }
  rect {
    fill: none;
    vector-effect: non-scaling-stroke;
  }
  .sensor {
    stroke: var(--ink);
    fill: var(--light-fill);
  }
  .window {
    stroke: var(--line-strong);
  }
</style>
