<script lang="ts">
  import { scaleLinear } from 'd3-scale'
  import { linePath, type Span } from '../../lib/plots'
  import type { FlickerView } from '../../lib/types'
  import PlotFrame from './PlotFrame.svelte'

  interface Props {
    wave: FlickerView['wave']
    lamp: string
  }
  let { wave, lamp }: Props = $props()

  /** The bars of the first and the last row, below the field. */
  const BARS = { first: 12, last: 30 }
  const ROOM = { left: 40, right: 12, top: 12, bottom: 62 }
  const across = $derived((pixels: Span) => scaleLinear().domain([0, wave.span_ms]).range(pixels))
  const up = $derived((pixels: Span) =>
    scaleLinear()
      .domain([0, Math.max(wave.highest, 1.2) * 1.05])
      .range(pixels),
  )
  const frames = $derived(
    Array.from({ length: Math.floor(wave.span_ms / wave.frame_ms + 1e-9) + 1 }, (_, i) => i * wave.frame_ms),
  )
  const clip = (ms: number) => Math.min(ms, wave.span_ms)
  const levels = [
    { at: 0, text: 'dark' },
    { at: 1, text: 'mean' },
  ]
</script>

<PlotFrame
  title="Light of the lamp over {wave.span_ms < 10
    ? wave.span_ms.toFixed(2)
    : wave.span_ms.toFixed(0)} ms, and the shutter's openings"
  note="{lamp}; a still drawing"
  label="Waveform of {lamp} with the shutter's openings"
  height={200}
  room={ROOM}
  {across}
  {up}
  marksAcross={[]}
  marksUp={levels}
  lined={false}
>
  {#snippet children({ x, y, left, right, top, bottom })}
    <line class="mean" x1={left} x2={right} y1={y(1)} y2={y(1)} />
    {#each wave.openings as o (`${o.frame}${o.row}`)}
      {#if o.row === 'first'}<rect
          class="seen"
          x={x(o.from_ms)}
          y={top}
          width={Math.max(x(clip(o.to_ms)) - x(o.from_ms), 1)}
          height={bottom - top}
        />{/if}
    {/each}
    <path
      class="light"
      d={linePath(
        wave.points.map(([ms = 0, level = 0]) => [ms, level]),
        x,
        y,
      )}
    />
    {#each frames as ms (ms)}
      <line class="frame" x1={x(ms)} x2={x(ms)} y1={top} y2={bottom + 44} />
      <text x={x(ms)} y={bottom + 58} text-anchor={ms === 0 ? 'start' : x(ms) > right - 28 ? 'end' : 'middle'}
        >{Number(ms.toFixed(1))} ms</text
      >
    {/each}
    {#each wave.openings as o (`bar${o.frame}${o.row}`)}
      {@const wide = x(clip(o.to_ms)) - x(o.from_ms)}
      {@const at = bottom + BARS[o.row]}
      <rect class={o.row} data-testid="opening" x={x(o.from_ms)} y={at} width={Math.max(wide, 2)} height="12"
        ><title>{o.row} row: {(100 * o.exposure).toFixed(1)} % of a steady lamp's light</title></rect
      >
      {#if wide > 60}<text class="on" x={x(o.from_ms) + 5} y={at + 10}>{(100 * o.exposure).toFixed(1)} %</text
        >{/if}
    {/each}
    {#each ['first', 'last'] as const as row (row)}
      <text x={left - 5} y={bottom + BARS[row] + 10} text-anchor="end">{row}</text>
    {/each}
  {/snippet}
</PlotFrame>

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
