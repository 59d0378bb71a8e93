<script lang="ts">
  import type { FlickerView } from '../../lib/types'

  interface Props {
    wave: FlickerView['wave']
    lamp: string
  }
  let { wave, lamp }: Props = $props()

  let width = $state(700)
  const HEIGHT = 200
  const [LEFT, RIGHT, TOP, BOTTOM] = [40, 12, 12, 62]
  const x = $derived((ms: number) => LEFT + (ms / wave.span_ms) * (width - LEFT - RIGHT))
  const top = $derived(Math.max(wave.highest, 1.2) * 1.05)
  const y = $derived((level: number) => TOP + (1 - level / top) * (HEIGHT - TOP - BOTTOM))
  const base = HEIGHT - BOTTOM
  const line = $derived(
    wave.points
      .map(([ms = 0, level = 0], i) => `${i ? 'L' : 'M'}${x(ms).toFixed(1)} ${y(level).toFixed(1)}`)
      .join(''),
  )
  const frames = $derived(
    Array.from({ length: Math.ceil(wave.span_ms / wave.frame_ms) + 1 }, (_, i) => i * wave.frame_ms),
  )
  const rows = { first: HEIGHT - 50, last: HEIGHT - 32 }
  const clip = (ms: number) => Math.min(ms, wave.span_ms)
</script>

<figure class="drawing" bind:clientWidth={width}>
  <figcaption>
    Light of the lamp over {wave.span_ms < 10 ? wave.span_ms.toFixed(2) : wave.span_ms.toFixed(0)} ms, and the shutter's
    openings <span class="soft">· {lamp}; a still drawing</span>
  </figcaption>
  <svg {width} height={HEIGHT} role="img" aria-label="Waveform of {lamp} with the shutter's openings">
    <line class="mean" x1={LEFT} x2={width - RIGHT} y1={y(1)} y2={y(1)} />
    <text x={LEFT - 5} y={y(1) + 4} text-anchor="end">mean</text>
    <text x={LEFT - 5} y={base + 4} text-anchor="end">dark</text>
    {#each wave.openings as o (`${o.frame}${o.row}`)}
      {#if o.row === 'first'}<rect
          class="seen"
          x={x(o.from_ms)}
          y={TOP}
          width={Math.max(x(clip(o.to_ms)) - x(o.from_ms), 1)}
          height={base - TOP}
        />{/if}
    {/each}
    <path class="light" d={line} />
    {#each frames as ms (ms)}
      {#if ms <= wave.span_ms + 1e-9}<line class="frame" x1={x(ms)} x2={x(ms)} y1={TOP} y2={HEIGHT - 18} />
        <text
          x={x(ms)}
          y={HEIGHT - 4}
          text-anchor={ms === 0 ? 'start' : x(ms) > width - 40 ? 'end' : 'middle'}
          >{Number(ms.toFixed(1))} ms</text
        >{/if}
    {/each}
    {#each wave.openings as o (`bar${o.frame}${o.row}`)}
      <rect
        class={o.row}
        data-testid="opening"
        x={x(o.from_ms)}
        y={rows[o.row]}
        width={Math.max(x(clip(o.to_ms)) - x(o.from_ms), 2)}
        height="12"
        ><title>{o.row} row: {(100 * o.exposure).toFixed(1)} % of a steady lamp's light</title></rect
      >
      {#if x(clip(o.to_ms)) - x(o.from_ms) > 60}<text class="on" x={x(o.from_ms) + 5} y={rows[o.row] + 10}
          >{(100 * o.exposure).toFixed(1)} %</text
        >{/if}
    {/each}
    <text x={LEFT - 5} y={rows.first + 10} text-anchor="end">first</text>
    <text x={LEFT - 5} y={rows.last + 10} text-anchor="end">last</text>
  </svg>
</figure>

<style>
  .mean {
    stroke: var(--line-strong);
    stroke-dasharray: 2 4;
  }
  .light {
    fill: none;
    stroke: var(--accent);
    stroke-width: 1.8;
  }
  .seen {
    fill: var(--light-fill);
  }
  .frame {
    stroke: var(--line);
  }
  .first,
  .last {
    fill: var(--panel);
    stroke: var(--light);
  }
  .last {
    stroke-dasharray: 4 2;
  }
  .on {
    fill: var(--ink);
  }
</style>
