<script lang="ts" module>
  import type { DepthAsk } from '../../lib/types'
  /** What is asked besides the state of the Bench. */
  export type DepthAsked = Omit<DepthAsk, 'state'> & { hold_near_m: number; softness_percent: number }
</script>

<script lang="ts">
  import { aperture, distanceWithUnit } from '../../lib/format'
  import type { BenchState, DepthView, Problem, StopAnswer, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import NumberField from '../fields/NumberField.svelte'

  interface Props {
    view: DepthView
    state: BenchState
    /** What stops are marked with: T, f/. */
    marks: string
    asked: DepthAsked
    /** What is wrong with the softness. */
    fault: string | undefined
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onask: (part: Partial<DepthAsked>) => void
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { view, state: bench, marks, asked, fault, read, onask, onchange }: Props = $props()
  const mark = (value: number | null) => (value === null ? '' : `${marks}${aperture(value)}`)

  function take(answer: StopAnswer) {
    if (answer.mark === null || answer.focus_m === null) return
    const focus_m =
      Math.abs(answer.focus_m - bench.subject_m) < 0.0005 ? null : Number(answer.focus_m.toFixed(4))
    onchange({ stop: answer.mark, focus_m })
  }
</script>

{#snippet answered(title: string, answer: StopAnswer | null)}
  {#if answer}
    <p class="answer">
      {#if title}<span class="soft">{title}</span>{/if}
      <span class:warn={answer.mark === null || answer.too_close}>{answer.text}</span>
      {#if answer.next}<span class="soft">{answer.next}</span>{/if}
      {#if answer.mark !== null && !answer.too_close}
        <button class="knob small" onclick={() => take(answer)}>Set {mark(answer.mark)}</button>
      {/if}
    </p>
  {/if}
{/snippet}

<div class="asks">
  <section aria-label="Hold from here to there">
    <h2>Hold from here to there</h2>
    <p class="row">
      from <DistanceField
        label="Hold from"
        metres={asked.hold_near_m}
        unit={bench.unit}
        {read}
        onchange={(m) => onask({ hold_near_m: m })}
      />
      to {#if asked.hold_far_m != null}<DistanceField
          label="Hold to"
          metres={asked.hold_far_m}
          unit={bench.unit}
          {read}
          onchange={(m) => onask({ hold_far_m: m })}
        />{/if}
      <button
        class="knob small"
        aria-pressed={asked.hold_far_m === null}
        onclick={() => onask({ hold_far_m: asked.hold_far_m === null ? asked.hold_near_m * 2 : null })}
        >infinity</button
      >
    </p>
    {@render answered('', view.hold)}
  </section>
  <section aria-label="Hold a movement">
    <h2>Hold a movement</h2>
    <p class="row">
      back and forth over
      {#if bench.movement_m > 0}<DistanceField
          label="Movement"
          metres={bench.movement_m}
          unit={bench.unit}
          {read}
          onchange={(movement_m, kind) => onchange({ movement_m }, kind)}
        />
        <button class="knob small" onclick={() => onchange({ movement_m: 0 })}>none</button>
      {:else}<button class="knob small" onclick={() => onchange({ movement_m: 0.4 })}
          >{distanceWithUnit(0.4, bench.unit)}</button
        >{/if}
    </p>
    {#if view.movement}
      {@render answered('Focus held on the subject:', view.movement.kept)}
      {@render answered('Best focus:', view.movement.best)}
    {/if}
  </section>
  <section aria-label="A background this soft">
    <h2>A background this soft</h2>
    <p class="row">
      <NumberField
        label="Softness, per cent of the width"
        value={asked.softness_percent}
        size={4}
        {fault}
        onchange={(value) => onask({ softness_percent: value ?? 2 })}
      /> % of the width, at
      {#if asked.background_m != null}<DistanceField
          label="Background at"
          metres={asked.background_m}
          unit={bench.unit}
          {read}
          onchange={(m) => onask({ background_m: m })}
        />{/if}
      <button
        class="knob small"
        aria-pressed={asked.background_m === null}
        onclick={() =>
          onask({
            background_m: asked.background_m === null ? Number((bench.subject_m * 2).toFixed(2)) : null,
          })}>infinity</button
      >
    </p>
    {@render answered('', view.softness)}
  </section>
  <section aria-label="Most depth">
    <h2>Most depth at this stop</h2>
    {#if view.most}
      {@const most = view.most}
      <p class="answer">
        {most.text}
        <button class="knob small" onclick={() => onchange({ focus_m: Number(most.focus_m.toFixed(3)) })}
          >Focus there</button
        >
      </p>
    {/if}
  </section>
</div>

<style>
  h2 {
    font-size: 15px;
    font-weight: 500;
  }
  .asks {
    display: grid;
    gap: 12px 26px;
    grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.5rem;
    align-items: center;
    min-height: 30px;
  }
  .answer {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.5rem;
    align-items: baseline;
  }
</style>
