<script lang="ts">
  import { mm } from '../lib/format'

  interface Props {
    /** The delivered picture as it lies on the sensor, and de-squeezed; mm. */
    frame: { squeeze: number; on_sensor_mm: number[]; de_squeezed_mm: number[] }
  }
  let { frame }: Props = $props()
  const PX = 110
  const shapes = $derived([
    { name: 'on the sensor', size: frame.on_sensor_mm },
    { name: 'de-squeezed', size: frame.de_squeezed_mm },
  ])
  const scale = $derived(PX / Math.max(frame.de_squeezed_mm[0] ?? 1, 1))
  const ratio = (size: number[]) => ((size[0] ?? 0) / (size[1] || 1)).toFixed(2)
</script>

{#if frame.squeeze !== 1}
  <div class="shapes" role="img" aria-label="The picture squeezed on the sensor, and de-squeezed">
    {#each shapes as { name, size } (name)}
      {@const w = (size[0] ?? 0) * scale}
      {@const h = (size[1] ?? 0) * scale}
      <span>
        <svg width={w + 2} height={h + 2} aria-hidden="true">
          <rect x="1" y="1" width={w} height={h} />
          <ellipse
            cx={w / 2 + 1}
            cy={h / 2 + 1}
            rx={(h * 0.34) / (name === 'on the sensor' ? frame.squeeze : 1)}
            ry={h * 0.34}
          />
        </svg>
        <span class="soft">{name} {mm(size[0])} × {mm(size[1])} mm, {ratio(size)}:1</span>
      </span>
    {/each}
  </div>
{/if}

<style>
  .shapes {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 18px;
    font-size: 12.5px;
  }
  .shapes > span {
    display: grid;
    gap: 2px;
  }
  svg {
    display: block;
  }
  rect {
    fill: var(--accent-fill);
    stroke: var(--accent);
  }
  ellipse {
    fill: none;
    stroke: var(--ink);
  }
</style>
