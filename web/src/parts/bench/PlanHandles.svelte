<script lang="ts">
  import { limits, withUnit } from '../../lib/figures'
  import { distanceWithUnit } from '../../lib/format'
  import type { PlanGeometry, Unit } from '../../lib/types'
  import type { PlanDrag } from './plan.svelte'

  interface Props {
    plan: PlanGeometry
    subject_m: number
    focus_m: number
    unit: Unit
    /** Metres along the axis to pixels, and pixels for a metre. */
    x: (metres: number) => number
    px: number
    axis: number
    width: number
    height: number
    /** Where the drawing begins. */
    left: number
    drag: PlanDrag
  }
  let { plan, subject_m, focus_m, unit, x, px, axis, width, height, left, drag }: Props = $props()

  const far = $derived(Math.min(plan.far_m ?? plan.extent_m * 2, plan.extent_m * 2))
  const shown = $derived(plan.near_m === null ? null : limits(plan.near_m, plan.far_m, plan.focus_m, unit))
  const near = $derived(shown ? withUnit(shown.near, shown) : '')
  const farText = $derived(shown ? withUnit(shown.far, shown) : '')
  const apart = $derived(Math.abs(focus_m - subject_m) > 0.001)
  const nearLeft = $derived(plan.near_m === null ? 0 : x(plan.near_m) < left + 90)
  const farLabel = $derived(Math.min(x(far), width - 6))
  const person = $derived(plan.person_m)
  const focusLabel = $derived(`${apart ? 'focus' : 'focus on subject'} ${distanceWithUnit(focus_m, unit)}`)
  // A figure of the monospaced face is 8 px wide.
  const focusLabelLeft = $derived(x(focus_m) + 16 + 8 * focusLabel.length > width)
</script>

{#if plan.movement}
  {@const [a, b] = [x(plan.movement.from_m), x(plan.movement.to_m)]}
  <g class="moves" class:soft-moves={plan.movement.holds === false} data-testid="movement">
    <title>{plan.movement.text}</title>
    <path d="M{a},{axis - 34} v12 M{a},{axis - 28} H{b} M{b},{axis - 34} v12" />
    <text x={(a + b) / 2} y={axis - 38} text-anchor="middle"
      >{plan.movement.holds === null ? 'moves' : plan.movement.holds ? 'holds' : 'goes soft'}</text
    >
  </g>
{/if}
{#if plan.near_m !== null}
  <text
    class="figure limit"
    x={nearLeft ? left + 14 : x(plan.near_m) - 5}
    y="14"
    text-anchor={nearLeft ? 'start' : 'end'}>near {near}</text
  >
  <text
    class="figure limit"
    x={farLabel > width - 100 ? width - 6 : farLabel + 5}
    y={farLabel > width - 100 && farLabel - x(plan.near_m) < 110 ? 30 : 14}
    text-anchor={farLabel > width - 100 ? 'end' : 'start'}>far {farText}</text
  >
{/if}
<g
  class="handle"
  role="slider"
  tabindex="0"
  aria-label="Subject"
  aria-valuenow={subject_m}
  aria-valuemin="0"
  aria-valuemax={plan.extent_m}
  aria-valuetext={distanceWithUnit(subject_m, unit)}
  onpointerdown={(event) => drag.start('subject', event)}
  onkeydown={(event) => drag.key('subject', subject_m, event)}
>
  <circle class="grip" cx={x(subject_m)} cy={axis} r="24" />
  <ellipse
    class="person"
    cx={x(subject_m)}
    cy={axis}
    rx={Math.max(((person.chest ?? 0) / 2) * px, 4)}
    ry={Math.max(((person.shoulders ?? 0) / 2) * px, 7)}
  />
  <circle class="person" cx={x(subject_m)} cy={axis} r={Math.max(((person.head ?? 0) / 2) * px, 3)} />
</g>
<g
  class="handle"
  role="slider"
  tabindex="0"
  aria-label="Focus"
  aria-valuenow={focus_m}
  aria-valuemin="0"
  aria-valuemax={plan.extent_m}
  aria-valuetext={distanceWithUnit(focus_m, unit)}
  onpointerdown={(event) => drag.start('focus', event)}
  onkeydown={(event) => drag.key('focus', focus_m, event)}
>
  <rect class="grip" x={x(focus_m) - 22} y={height - 62} width="44" height="40" />
  <polygon
    class="flag"
    points="{x(focus_m)},{height - 34} {x(focus_m) - 7},{height - 22} {x(focus_m) + 7},{height - 22}"
  />
  <text
    class="figure limit"
    x={x(focus_m) + (focusLabelLeft ? -12 : 12)}
    y={height - 26}
    text-anchor={focusLabelLeft ? 'end' : 'start'}>{focusLabel}</text
  >
</g>

<style>
  .moves path {
    fill: none;
    stroke: var(--ok);
    stroke-width: 2;
  }
  .moves text {
    fill: var(--ok);
  }
  .soft-moves path {
    stroke: var(--bad);
    stroke-dasharray: 4 3;
  }
  .soft-moves text {
    fill: var(--bad);
  }
  .limit {
    fill: var(--accent);
    font-size: 13px;
  }
  .handle {
    cursor: ew-resize;
  }
  .grip {
    fill: transparent;
  }
  .person {
    fill: var(--panel);
    stroke: var(--ink);
    stroke-width: 1.7;
  }
  .flag {
    fill: var(--accent);
  }
  .handle:focus-visible {
    outline: none;
  }
  .handle:focus-visible .grip {
    stroke: var(--accent);
    stroke-width: 2;
  }
</style>
