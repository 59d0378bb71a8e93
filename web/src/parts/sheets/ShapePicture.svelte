<script lang="ts">
  import type { SheetPicture } from '../../lib/types'

  interface Props {
    picture: SheetPicture
    /** Pixels for each unit, where all of a grid are drawn at one scale. */
    scale?: number | null
  }
  let { picture, scale = null }: Props = $props()
  const own = $props.id()
  const path = (points: readonly number[][]) => `M${points.map((point) => point.join(' ')).join('L')}`
</script>

<figure>
  <svg
    viewBox="{picture.x} {picture.y} {picture.width} {picture.height}"
    style:width={scale === null ? '100%' : `${picture.width * scale}px`}
    role="img"
    aria-label={picture.told}
  >
    <clipPath id={own}>
      <rect x={picture.x} y={picture.y} width={picture.width} height={picture.height} />
    </clipPath>
    <g clip-path="url(#{own})">
      {#each picture.shapes as shape, i (i)}
        {#if shape.kind === 'text'}
          <text class="text" x={shape.points[0]?.[0]} y={shape.points[0]?.[1]} font-size={picture.height / 14}
            >{shape.text}</text
          >
        {:else if shape.kind === 'oval'}
          <ellipse
            class="line {shape.style}"
            cx={shape.points[0]?.[0]}
            cy={shape.points[0]?.[1]}
            rx={shape.points[1]?.[0]}
            ry={shape.points[1]?.[1]}
          />
        {:else}
          <path
            class="{shape.kind} {shape.style}"
            d="{path(shape.points)}{shape.kind === 'area' ? 'z' : ''}"
          />
        {/if}
      {/each}
    </g>
  </svg>
  <figcaption>
    {#each picture.lines.filter(Boolean) as line, i (i)}<span>{line}</span>{/each}
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
    min-width: 0;
  }
  svg {
    display: block;
    max-width: 100%;
    height: auto;
    border: 1px solid var(--line-strong);
  }
  figcaption {
    display: grid;
    font-size: 12px;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }
  .dashed {
    stroke-dasharray: 4 3;
  }
  .circle {
    stroke: var(--light);
    stroke-dasharray: 2 3;
  }
  .line.focus {
    stroke: var(--accent);
  }
  .soft {
    fill: var(--cell);
  }
  .fill {
    fill: var(--line-strong);
  }
  .dark {
    fill: var(--ink-soft);
  }
  .area.focus {
    fill: var(--accent);
  }
  .hatch {
    fill: var(--bad);
    fill-opacity: 0.35;
  }
  .text {
    fill: var(--ink-soft);
  }
</style>
