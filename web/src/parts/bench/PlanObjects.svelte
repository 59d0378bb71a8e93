<script lang="ts">
  import { distanceWithUnit } from '../../lib/format'
  import type { FinderObject, Unit } from '../../lib/types'
  import { placeNames } from '../drawings/labels'
  import { ObjectDrag } from './plan.svelte'

  interface Props {
    objects: FinderObject[]
    unit: Unit
    /** Metres to pixels along the axis and beside it; pixels for a metre. */
    x: (metres: number) => number
    y: (metres: number) => number
    px: number
    width: number
    height: number
    onplace: (key: string, distance_m: number, aside_m: number, kind: string) => void
    ondrag: (on: boolean) => void
  }
  let { objects, unit, x, y, px, width, height, onplace, ondrag }: Props = $props()

  const drag = new ObjectDrag({
    scale: () => ({ px, x0: x(0), y0: y(0) }),
    unit: () => unit,
    onplace: (key, d, a, kind) => onplace(key, d, a, kind),
    ondrag: (on) => ondrag(on),
  })
  const placed = $derived(objects.filter((o) => o.key !== 'subject'))
  const inside = $derived(
    (o: FinderObject) => x(o.distance_m) < width - 6 && Math.abs(y(o.aside_m) - height / 2) < height / 2 - 6,
  )
  const beyond = $derived(placed.filter((o) => !inside(o)))
  const label = (o: FinderObject) =>
    `${o.name}${o.blur_share == null ? '' : ` ${(100 * o.blur_share).toFixed(o.blur_share < 0.01 ? 2 : 1)} %`}`
  /** What is held has its name first, then what is nearest. */
  const rank = (o: FinderObject) => (drag.key_held === o.key ? -1 : o.distance_m)
  const names = $derived(
    new Map(
      placeNames(
        placed
          .filter(inside)
          .toSorted((a, b) => rank(a) - rank(b))
          .map((o) => ({ id: o.key, x: x(o.distance_m), y: y(o.aside_m), text: label(o) })),
        width,
        height,
      ).map((name) => [name.id, name]),
    ),
  )
</script>

{#each placed.filter(inside) as o (o.key)}
  {@const name = names.get(o.key)}
  <g
    class="object {o.kind}"
    class:held={drag.key_held === o.key}
    role="slider"
    tabindex="0"
    aria-label={o.name}
    aria-valuenow={o.distance_m}
    aria-valuetext="{distanceWithUnit(o.distance_m, unit)}, {distanceWithUnit(
      Math.abs(o.aside_m),
      unit,
    )} {o.aside_m < 0 ? 'to the left' : 'to the right'}"
    onpointerdown={(event) => drag.start(o, event)}
    onpointermove={(event) => drag.move(event)}
    onpointerup={() => drag.end()}
    onpointercancel={() => drag.end()}
    onkeydown={(event) => drag.key(o, event)}
  >
    <circle class="grip" cx={x(o.distance_m)} cy={y(o.aside_m)} r="18" />
    {#if o.kind === 'standing' || o.kind === 'seated'}
      <ellipse
        cx={x(o.distance_m)}
        cy={y(o.aside_m)}
        rx={Math.max(0.13 * px, 4)}
        ry={Math.max(0.23 * px, 7)}
      />
      <circle cx={x(o.distance_m)} cy={y(o.aside_m)} r={Math.max(0.085 * px, 3)} />
    {:else if o.kind === 'lamp'}
      <circle class="lamp" cx={x(o.distance_m)} cy={y(o.aside_m)} r="6" />
    {:else if o.kind === 'post'}
      <rect x={x(o.distance_m) - 4} y={y(o.aside_m) - 4} width="8" height="8" />
    {:else}
      <line x1={x(o.distance_m)} x2={x(o.distance_m)} y1="20" y2={height} />
    {/if}
    {#if name}<text x={name.x} y={name.y}>{name.text}</text>
    {:else}<text
        class="crowded"
        x={x(o.distance_m) - 12}
        y={y(o.aside_m) + 4}
        text-anchor={x(o.distance_m) > width / 2 ? 'end' : 'start'}>{label(o)}</text
      >{/if}
  </g>
{/each}
{#if beyond.length}
  <text class="beyond" x={width - 6} y={height - 26} text-anchor="end"
    >{beyond.length} beyond ▸<title
      >{beyond.map((o) => `${o.name} ${distanceWithUnit(o.distance_m, unit)}`).join(', ')}</title
    ></text
  >
{/if}

<style>
  .object {
    cursor: grab;
  }
  .object :is(ellipse, circle, rect) {
    fill: var(--panel);
    stroke: var(--ink-soft);
    stroke-width: 1.3;
  }
  .object .lamp {
    fill: var(--accent-fill);
    stroke: var(--accent);
  }
  .object line {
    stroke: var(--ink-soft);
    stroke-dasharray: 1 3;
    stroke-width: 3;
  }
  .object .grip {
    fill: transparent;
    stroke: none;
  }
  /* A name that found no place beside the others is there when its thing is pointed at. */
  .crowded {
    visibility: hidden;
  }
  .object:is(:hover, :focus-visible) .crowded {
    visibility: visible;
  }
  .object:focus-visible {
    outline: none;
  }
  .object:focus-visible .grip {
    stroke: var(--accent);
    stroke-width: 2;
  }
  text {
    fill: var(--ink-soft);
    font-size: 12px;
    paint-order: stroke;
    stroke: var(--panel);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
</style>
