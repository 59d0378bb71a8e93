<script lang="ts">
  import { paint, type Painting } from '../../lib/finderPaint'
  import type { FinderView } from '../../lib/types'

  interface Props {
    view: FinderView
    /** What is looked through, for the caption. */
    name?: string
    /** Show the image as it lies on the sensor, not de-squeezed. */
    squeezed?: boolean
    onsqueezed?: (on: boolean) => void
    compact?: boolean
  }
  let { view, name = '', squeezed = false, onsqueezed, compact = false }: Props = $props()

  let width = $state(400)
  let height = $state(240)
  let canvas: HTMLCanvasElement
  const MARGIN = 6

  const narrow = $derived(squeezed ? 1 / view.squeeze : 1)
  const perMm = $derived(
    Math.max(
      Math.min(
        (width - 2 * MARGIN) / (view.recorded.width * narrow),
        (height - 2 * MARGIN) / view.recorded.height,
      ),
      0.01,
    ),
  )
  const at: Painting = $derived({
    perMmX: perMm * narrow,
    perMmY: perMm,
    originX: width / 2 - (view.recorded.x + view.recorded.width / 2) * perMm * narrow,
    originY: height / 2 - (view.recorded.y + view.recorded.height / 2) * perMm,
  })
  type Rect = FinderView['recorded']
  const x = $derived((r: Rect) => at.originX + r.x * at.perMmX)
  const y = $derived((r: Rect) => at.originY + r.y * at.perMmY)
  const w = $derived((r: Rect) => r.width * at.perMmX)
  const h = $derived((r: Rect) => r.height * at.perMmY)

  const aspect = (value: number) =>
    value < 1
      ? `${Math.round(value * 16)}:16`
      : Math.abs(value - 4 / 3) < 0.005
        ? '4:3'
        : `${value.toFixed(2)}:1`
  const known = (value: number) => (Math.abs(value - 0.5625) < 0.001 ? '9:16' : aspect(value))

  // The canvas is drawn by hand: whenever the answer or the size changes.
  $effect(() => {
    const context = canvas.getContext('2d')
    if (!context) return
    const density = Math.min(window.devicePixelRatio || 1, 2)
    canvas.width = Math.round(width * density)
    canvas.height = Math.round(height * density)
    context.scale(density, density)
    paint(context, view, at)
  })
</script>

<figure class="drawing bare">
  {#if !compact}<figcaption>
      Through the finder <span class="soft">· {name}</span>
      {#if view.squeeze !== 1 && onsqueezed}
        <button class="knob" aria-pressed={squeezed} onclick={() => onsqueezed(!squeezed)}>Squeezed</button>
      {/if}
    </figcaption>{/if}
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <canvas bind:this={canvas} style:width="{width}px" style:height="{height}px" aria-hidden="true"></canvas>
    <svg {width} {height} role="img" aria-label="Finder picture, {squeezed ? 'squeezed' : 'to scale'}">
      {#each view.objects as thing (thing.key)}
        {#if thing.at && thing.in_picture}<circle
            class="spot"
            data-object={thing.key}
            cx={at.originX + (thing.at[0] ?? 0) * at.perMmX}
            cy={at.originY + (thing.at[1] ?? 0) * at.perMmY}
            r="14"><title>{thing.name}</title></circle
          >{/if}
      {/each}
      <rect
        class="recorded"
        x={x(view.recorded)}
        y={y(view.recorded)}
        width={w(view.recorded)}
        height={h(view.recorded)}
      />
      <rect
        class="picture"
        data-testid="finder-picture"
        x={x(view.picture)}
        y={y(view.picture)}
        width={w(view.picture)}
        height={h(view.picture)}
      />
      {#if view.framed.width < view.picture.width}
        <rect
          class="framed"
          x={x(view.framed)}
          y={y(view.framed)}
          width={w(view.framed)}
          height={h(view.framed)}><title>less its protection</title></rect
        >
      {/if}
      {#if view.title_safe}
        <rect
          class="safe"
          x={x(view.title_safe)}
          y={y(view.title_safe)}
          width={w(view.title_safe)}
          height={h(view.title_safe)}><title>title safe, 90 %</title></rect
        >
      {/if}
      {#each view.others as frame (frame.aspect)}
        <rect class="other" x={x(frame)} y={y(frame)} width={w(frame)} height={h(frame)} />
        <text class="figure" x={x(frame) + 3} y={y(frame) + h(frame) - 4}>{known(frame.aspect)}</text>
      {/each}
    </svg>
  </div>
</figure>

<style>
  figcaption {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    padding: 5px 10px 0;
    font-size: 13px;
  }
  figcaption .knob {
    margin-left: auto;
    min-height: 0;
    padding: 0 0.5rem;
  }
  .canvas {
    position: relative;
    flex: 1 1 0;
    min-height: 0;
    overflow: hidden;
  }
  canvas,
  svg {
    position: absolute;
    inset: 0;
    display: block;
  }
  rect {
    fill: none;
    pointer-events: none;
  }
  .spot {
    fill: transparent;
  }
  .recorded {
    stroke: var(--light);
  }
  .picture {
    stroke: #f2b65a;
    stroke-width: 2;
  }
  .framed {
    stroke: #f2b65a;
    stroke-dasharray: 2 3;
  }
  .safe {
    stroke: #eaf2f9;
    stroke-dasharray: 1 4;
  }
  .other {
    stroke: #9be0c0;
    stroke-dasharray: 8 4;
  }
  text {
    font-size: 12px;
    fill: #9be0c0;
    paint-order: stroke;
    stroke: #0a1726;
    stroke-width: 3px;
  }
</style>
