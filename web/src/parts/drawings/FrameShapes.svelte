<script lang="ts">
  import { mm } from '../../lib/format'

  interface Props {
    squeeze: number
    /** The delivered picture as it lies on the sensor, mm. */
    width: number
    height: number
    /** Beside other words: smaller. */
    compact?: boolean
  }
  let { squeeze, width, height, compact = false }: Props = $props()
  const shapes = $derived([
    { name: 'squeezed', w: width, stretch: squeeze },
    { name: 'de-squeezed', w: width * squeeze, stretch: 1 },
  ])
  const scale = $derived((compact ? 62 : 110) / Math.max(width * squeeze, 1))
</script>

<span class="shapes" role="img" aria-label="The picture squeezed on the sensor, and de-squeezed">
  {#each shapes as { name, w, stretch } (name)}
    <span>
      <svg width={w * scale + 2} height={height * scale + 2} aria-hidden="true">
        <rect x="1" y="1" width={w * scale} height={height * scale} />
        <!-- A circle in the scene. -->
        <ellipse
          cx={(w * scale) / 2 + 1}
          cy={(height * scale) / 2 + 1}
          rx={(height * scale * 0.34) / stretch}
          ry={height * scale * 0.34}
        />
      </svg>
      <span class="soft"
        >{name}{compact ? '' : ` ${mm(w)} × ${mm(height)} mm,`} {(w / height).toFixed(2)}:1</span
      >
    </span>
  {/each}
</span>

<style>
  .shapes {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 16px;
    font-size: 12.5px;
  }
  .shapes > span {
    display: inline-flex;
    align-items: center;
    gap: 6px;
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
