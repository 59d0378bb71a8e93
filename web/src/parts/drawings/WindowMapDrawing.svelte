<script lang="ts">
  import { COVERAGE } from '../../lib/verdicts'
  import { mm } from '../../lib/format'
  import type { MapGeometry } from '../../lib/types'
  import FrameShapes from './FrameShapes.svelte'

  interface Props {
    map: MapGeometry
    bodyName: string
    onchoose: (modeId: number) => void
  }
  let { map, bodyName, onchoose }: Props = $props()
  const id = $props.id()

  // The view box is in millimetres; strokes and letters are scaled back to pixels.
  let width = $state(300)
  let height = $state(220)
  const circle = $derived(map.circle_mm ?? 0)
  const wide = $derived(Math.max(map.sensor.width, Math.min(circle, map.sensor.width * 1.35)) + 2)
  const high = $derived(Math.max(map.sensor.height, Math.min(circle, map.sensor.height * 1.5)) + 2)
  const mmPerPx = $derived(Math.max(wide / width, high / height))
  const box = $derived(
    `${(-width / 2) * mmPerPx} ${(-height / 2) * mmPerPx} ${width * mmPerPx} ${height * mmPerPx}`,
  )
</script>

<figure class="drawing bare windows">
  <figcaption>
    Window map <span class="soft">
      · {bodyName}, {mm(map.sensor.width)} × {mm(map.sensor.height)} mm, to scale</span
    >
  </figcaption>
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <svg {width} {height} viewBox={box} role="img" aria-label={map.words.map((w) => w.text).join(' ')}>
      <defs>
        <pattern
          id="{id}-hatch"
          width={mmPerPx * 7}
          height={mmPerPx * 7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line class="hatch" x1="0" y1="0" x2="0" y2={mmPerPx * 7} stroke-width={mmPerPx * 2.4} />
        </pattern>
        <mask id="{id}-dark">
          <rect {...map.recorded} name={undefined} fill="white" />
          <circle r={circle / 2} fill="black" />
        </mask>
      </defs>
      <rect class="sensor" {...map.sensor} name={undefined} stroke-width={mmPerPx} />
      {#each map.windows as w (w.mode_id)}
        <!-- A shortcut of the mouse; by keyboard the scan mode is set in the Readout link. -->
        <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
        <rect
          class="window"
          x={w.x}
          y={w.y}
          width={w.width}
          height={w.height}
          stroke-width={mmPerPx}
          onclick={() => onchoose(w.mode_id)}
          ><title>{w.name}: {mm(w.width)} × {mm(w.height)} mm, needs Ø {mm(w.needed_mm)} mm</title></rect
        >
      {/each}
      {#if map.circle_mm !== null}
        <rect {...map.recorded} name={undefined} fill="url(#{id}-hatch)" mask="url(#{id}-dark)" />
        <circle
          class="circle {map.verdict}"
          data-testid="image-circle"
          r={circle / 2}
          stroke-width={mmPerPx * 1.5}
          stroke-dasharray="{mmPerPx * 6} {mmPerPx * 4}"
        />
      {/if}
      <rect
        class="recorded"
        data-testid="recorded"
        {...map.recorded}
        name={undefined}
        stroke-width={mmPerPx * 1.6}
      />
      <rect
        class="picture"
        data-testid="picture"
        {...map.picture}
        name={undefined}
        stroke-width={mmPerPx * 2}
      />
      {#if map.framed.width < map.picture.width}
        <rect
          class="framed"
          {...map.framed}
          name={undefined}
          stroke-width={mmPerPx}
          stroke-dasharray="{mmPerPx * 3} {mmPerPx * 3}"
        />
      {/if}
    </svg>
  </div>
  <div class="below">
    <p class="swatches">
      <span class="swatch recorded-key"></span>recorded {mm(map.recorded.width)} × {mm(map.recorded.height)}
      <span class="swatch picture-key"></span>picture {mm(map.picture.width)} × {mm(map.picture.height)} mm
      {#if map.squeeze !== 1}<FrameShapes
          compact
          squeeze={map.squeeze}
          width={map.picture.width}
          height={map.picture.height}
        />{/if}
    </p>
    {#each map.words as word (word.text)}
      <p class={word.verdict}><span aria-hidden="true">{COVERAGE[word.verdict].sign}</span> {word.text}</p>
    {/each}
  </div>
</figure>

<style>
  .hatch {
    stroke: var(--bad);
  }
  .circle {
    fill: none;
    stroke: var(--ok);
    pointer-events: none;
  }
  .circle.short {
    stroke: var(--bad);
  }
  .circle.marginal {
    stroke: var(--warn);
  }
  .below {
    padding: 2px 10px 6px;
    font-size: 13px;
  }
  .swatches {
    color: var(--ink-soft);
  }
  .swatch {
    display: inline-block;
    width: 13px;
    height: 9px;
    margin: 0 4px 0 0;
    border: 2px solid var(--light);
  }
  .picture-key {
    margin-left: 10px;
    border-color: var(--accent);
  }
</style>
