<script lang="ts">
  import { mm } from '../../lib/format'
  import type { BodySheet } from '../../lib/types'

  interface Props {
    sheet: BodySheet
    /** Key of the chosen scan mode, and of the chosen recording format. */
    mode: string | undefined
    format: string | undefined
    onchoose: (modeKey: string) => void
  }
  let { sheet, mode, format, onchoose }: Props = $props()

  let width = $state(380)
  let height = $state(240)
  const sensor = $derived(sheet.sensor)
  const MARGIN_PX = 26
  const mmPerPx = $derived(
    Math.max(sensor.width_mm / (width - 2 * MARGIN_PX), sensor.height_mm / (height - 2 * MARGIN_PX), 1e-6),
  )
  const box = $derived(
    [-width / 2, -height / 2 + 4, width, height].map((n) => (n * mmPerPx).toFixed(4)).join(' '),
  )
  const chosen = $derived(sheet.modes.find((m) => m.key === mode))
  const recorded = $derived(sheet.formats.find((f) => f.key === format))
  const px = $derived((n: number) => n * mmPerPx)
</script>

<figure class="drawing windows">
  <figcaption>
    Sensor <span class="figure">{mm(sensor.width_mm)} × {mm(sensor.height_mm)} mm</span>
    <span class="soft"
      >· Ø {mm(sensor.diagonal_mm)} · {sensor.megapixels.toFixed(1)} MP{sensor.format_class
        ? ` · ${sensor.format_class}`
        : ''} · to scale</span
    >
  </figcaption>
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <svg {width} {height} viewBox={box} role="img" aria-label="Sensor with the windows of all scan modes">
      <rect
        class="sensor"
        data-testid="sensor"
        x={-sensor.width_mm / 2}
        y={-sensor.height_mm / 2}
        width={sensor.width_mm}
        height={sensor.height_mm}
        stroke-width={px(1)}
      />
      {#each sheet.modes as m (m.key)}
        <!-- A shortcut of the mouse; by keyboard a scan mode is chosen in its grid. -->
        <rect class="window" {...m.rect} stroke-width={px(1)} onclick={() => onchoose(m.key)}
          ><title>{m.name}: {mm(m.rect.width)} × {mm(m.rect.height)} mm</title></rect
        >
      {/each}
      <path class="axis" d="M {-px(6)} 0 H {px(6)} M 0 {-px(6)} V {px(6)}" stroke-width={px(1)} />
      {#if chosen}
        <rect class="chosen" data-testid="chosen-window" {...chosen.rect} stroke-width={px(2)} />
        <text
          class="figure dimension"
          x={chosen.rect.x + chosen.rect.width / 2}
          y={chosen.rect.y - px(5)}
          style:font-size="{px(12)}px"
          stroke-width={px(3)}
          text-anchor="middle">{mm(chosen.rect.width)} mm</text
        >
        <text
          class="figure dimension"
          transform="translate({chosen.rect.x - px(5)} {chosen.rect.y + chosen.rect.height / 2}) rotate(-90)"
          style:font-size="{px(12)}px"
          stroke-width={px(3)}
          text-anchor="middle">{mm(chosen.rect.height)} mm</text
        >
      {/if}
      {#if recorded}
        <rect
          class="recorded"
          data-testid="recorded-part"
          {...recorded.rect}
          stroke-width={px(1.6)}
          stroke-dasharray="{px(5)} {px(3)}"
        />
      {/if}
    </svg>
  </div>
  {#if chosen}
    <p class="below">
      <span class="accent">{chosen.name}</span>
      <span class="figure">{chosen.photosites[0]} × {chosen.photosites[1]}</span>
      <span class="soft">{chosen.aspect.toFixed(3)}:1, needs Ø</span>
      <span class="figure">{mm(chosen.needed_circle_mm)} mm</span>
      <span class="soft"
        >· {#each Object.entries(chosen.crop_by_width) as [name, factor], i (name)}{i
            ? ', '
            : ''}×{factor.toFixed(3)} of {name}{/each}</span
      >
      {#if recorded}<br /><span class="cyan">- - recorded</span>
        <span class="figure">{mm(recorded.width_mm)} × {mm(recorded.height_mm)} mm</span>{/if}
    </p>
  {/if}
</figure>

<style>
  figcaption,
  .below {
    padding: 5px 10px;
    font-size: 13px;
  }
  .canvas {
    flex: 1 1 0;
    min-height: 180px;
    overflow: hidden;
  }
  .axis {
    stroke: var(--line-strong);
  }
  .cyan {
    color: var(--light);
  }
  .dimension {
    fill: var(--accent);
    paint-order: stroke;
    stroke: var(--panel);
  }
</style>
