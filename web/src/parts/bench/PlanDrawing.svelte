<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { figureOptions } from '../../lib/options'
  import { distance, distanceWithUnit } from '../../lib/format'
  import type { FinderObject, PlanGeometry, Unit } from '../../lib/types'
  import PlanHandles from './PlanHandles.svelte'
  import PlanObjects from './PlanObjects.svelte'
  import { PlanDrag, type Handle } from './plan.svelte'

  interface Props {
    plan: PlanGeometry
    /** Where the hand has put them, before any answer: the handles stand there. */
    subject_m: number
    focus_m: number
    unit: Unit
    /** Names of the formats whose fields are drawn, by id. */
    names: Map<number, string>
    objects: FinderObject[]
    /** How far the plan reaches, metres; null as the subject asks. */
    reach: number | null
    onreach: (metres: number | null) => void
    onplace: (key: string, distance_m: number, aside_m: number, kind: string) => void
    onmove: (handle: Handle, metres: number, kind: string) => void
    ondrag: (on: boolean) => void
  }
  let { plan, subject_m, focus_m, unit, names, objects, reach, onreach, onplace, onmove, ondrag }: Props =
    $props()

  let width = $state(760)
  let height = $state(280)
  let svg: SVGSVGElement
  const LEFT = 46
  /** Round reaches in either unit, metres. */
  const REACHES = {
    m: [6, 15, 40, 100, 250],
    ft: [20, 50, 130, 330, 800].map((feet) => Number((feet * 0.3048).toFixed(4))),
  }
  const reaches = $derived(
    reach === null || REACHES[unit].includes(reach)
      ? REACHES[unit]
      : [...REACHES[unit], reach].toSorted((a, b) => a - b),
  )
  const RIGHT = 18
  const id = $props.id()

  // One scale for both directions: the drawing is true to proportion.
  const px = $derived((width - LEFT - RIGHT) / plan.extent_m)
  const axis = $derived((height - 22) / 2 + 8)
  const x = $derived((metres: number) => LEFT + metres * px)
  const y = $derived((metres: number) => axis + metres * px)
  const outline = $derived((points: number[][]) =>
    points.map(([a = 0, b = 0]) => `${x(a)},${y(b)}`).join(' '),
  )
  const far = $derived(Math.min(plan.far_m ?? plan.extent_m * 2, plan.extent_m * 2))

  const drag = new PlanDrag({
    scale: () => ({ pxPerMetre: px, originPx: LEFT }),
    unit: () => unit,
    onmove: (handle, metres, kind) => onmove(handle, metres, kind),
    ondrag: (on) => ondrag(on),
  })
</script>

<figure class="drawing bare halo">
  <figcaption>
    Plan view to scale <span class="soft">
      · field {distanceWithUnit(plan.field_width_m, unit)} × {distanceWithUnit(plan.field_height_m, unit)} in focus</span
    >
    <label class="reach"
      ><span class="soft">reach</span>
      <Choice
        label="Reach of the plan view"
        options={[
          { value: null, label: 'as the subject' },
          ...figureOptions(reaches, reach, (metres) => distanceWithUnit(metres, unit)),
        ]}
        value={reach}
        onchange={onreach}
      /></label
    >
  </figcaption>
  <div class="canvas" bind:clientWidth={width} bind:clientHeight={height}>
    <svg
      bind:this={svg}
      {width}
      {height}
      role="group"
      aria-label="Plan view along the lens axis"
      onpointermove={(event) => drag.move(event)}
      onpointerup={() => drag.end()}
      onpointercancel={() => drag.end()}
    >
      <defs>
        <clipPath id="{id}-frame"><rect x="0" y="0" {width} height={height - 22} /></clipPath>
        <clipPath id="{id}-field">
          {#each plan.cones as cone (cone.format_id)}
            {#if cone.chosen}<polygon points={outline(cone.points_m)} />{/if}
          {/each}
        </clipPath>
      </defs>
      {#each plan.ticks as tick (tick.at_m)}
        <line class="gridline" x1={x(tick.at_m)} x2={x(tick.at_m)} y1="0" y2={height - 20} />
        <text class="figure tick" x={x(tick.at_m)} y={height - 6} text-anchor="middle"
          >{tick.value} {unit}</text
        >
      {/each}
      <g clip-path="url(#{id}-frame)">
        {#each plan.cones as cone (cone.format_id)}
          <polygon class={cone.chosen ? 'field' : 'pinned'} points={outline(cone.points_m)}
            ><title>{names.get(cone.format_id)}</title></polygon
          >
        {/each}
        {#if plan.near_m !== null}
          <g clip-path="url(#{id}-field)">
            <rect
              class="depth"
              data-testid="depth-band"
              x={x(plan.near_m)}
              y="0"
              width={Math.max(x(far) - x(plan.near_m), 1)}
              {height}
            />
          </g>
        {/if}
        <g clip-path="url(#{id}-field)"
          ><line class="focus" x1={x(plan.focus_m)} x2={x(plan.focus_m)} y1="0" y2={height} /></g
        >
        {#if plan.hyperfocal_m !== null && plan.hyperfocal_m <= plan.extent_m}
          <line class="hyper" x1={x(plan.hyperfocal_m)} x2={x(plan.hyperfocal_m)} y1="18" y2={height - 22} />
          <text
            class="figure soft-text"
            x={x(plan.hyperfocal_m) + (x(plan.hyperfocal_m) > width - 140 ? -4 : 4)}
            y="32"
            text-anchor={x(plan.hyperfocal_m) > width - 140 ? 'end' : 'start'}
            >hyperfocal {distance(plan.hyperfocal_m, unit)}</text
          >
        {/if}
        <g class="camera">
          <rect x={x(0) - 26} y={axis - 12} width="26" height="24" rx="2" />
          <polygon
            points="{x(0)},{axis - 6} {x(0) + 9},{axis - 11} {x(0) + 9},{axis + 11} {x(0)},{axis + 6}"
          />
          <line x1={x(0)} x2={x(0)} y1={axis - 17} y2={axis + 17} />
        </g>
      </g>
      <g clip-path="url(#{id}-frame)"
        ><PlanObjects {objects} {unit} {x} {y} {px} {width} height={height - 22} {onplace} {ondrag} /></g
      >
      <PlanHandles {plan} {subject_m} {focus_m} {unit} {x} {px} {axis} {width} {height} left={LEFT} {drag} />
    </svg>
  </div>
</figure>

<style>
  svg {
    display: block;
    touch-action: none;
  }
  .field {
    fill: var(--light-fill);
    stroke: var(--light);
  }
  .pinned {
    fill: none;
    stroke: var(--ink-soft);
    stroke-dasharray: 3 5;
    opacity: 0.75;
  }
  .depth {
    fill: var(--accent-fill);
  }
  .focus,
  .hyper {
    stroke: var(--accent);
  }
  .focus {
    stroke-width: 2.5;
  }
  .hyper {
    stroke-dasharray: 2 4;
  }
  .reach {
    float: right;
  }
  .camera * {
    fill: var(--panel);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
</style>
