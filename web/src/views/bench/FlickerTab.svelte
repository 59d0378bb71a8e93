<script lang="ts">
  import Choice from '../../parts/controls/Choice.svelte'
  import type { BenchTabProps } from '../../lib/benchTabs'
  import * as client from '../../lib/client'
  import { rate } from '../../lib/format'
  import { follow } from '../../lib/look.svelte'
  import type { Light } from '../../lib/types'
  import LampTable from '../../parts/bench/LampTable.svelte'
  import Segments from '../../parts/controls/Segments.svelte'
  import NumberField from '../../parts/fields/NumberField.svelte'
  import WaveDrawing from '../../parts/drawings/WaveDrawing.svelte'

  let {
    productionId,
    state: bench,
    onchange,
  }: Pick<BenchTabProps, 'productionId' | 'state' | 'onchange'> = $props()

  const look = follow(
    () => bench,
    (state, signal) => client.viewFlicker(productionId, state, signal),
  )

  const MAINS = [
    { value: '50', label: '50 Hz' },
    { value: '60', label: '60 Hz' },
  ] as const
  const view = $derived(look.answer)
  const light = $derived(bench.light)
  const set = (part: Partial<Light>) => onchange({ light: { ...light, ...part } })
  const setAngle = (angle: number) =>
    set({ shutter: 'angle', shutter_deg: Number(Math.min(angle, 360).toFixed(4)) })
  const chosen = $derived(view?.lamps.find((l) => l.kind === light.lamp))
</script>

<section aria-label="Flicker" class="flicker">
  <p class="row">
    <span class="item"
      ><span class="soft">Mains</span>
      <Segments
        label="Mains frequency"
        options={MAINS}
        value={light.mains_hz === 60 ? '60' : '50'}
        onchange={(hz) => set({ mains_hz: hz === '60' ? 60 : 50 })}
      /></span
    >
    <label
      ><span class="soft">Lamp</span>
      <Choice
        label="Kind of lamp"
        options={(view?.lamps ?? []).map((lamp) => ({ value: lamp.kind, label: lamp.name }))}
        value={light.lamp}
        onchange={(lamp) => set({ lamp, ripple_percent: null })}
      /></label
    >
    {#if light.lamp === 'pulsed'}
      <span
        ><span class="soft">pulses</span>
        <NumberField
          label="Pulse frequency, Hz"
          size={6}
          value={light.pulse_hz}
          fault={look.faults['light.pulse_hz']}
          onchange={(pulse_hz) => pulse_hz !== null && set({ pulse_hz })}
        /> Hz, on for
        <NumberField
          label="Share of the time the lamp is on, per cent"
          size={4}
          value={Number((100 * light.pulse_duty).toFixed(2))}
          fault={look.faults['light.pulse_duty']}
          onchange={(percent) => percent !== null && set({ pulse_duty: percent / 100 })}
        /> %</span
      >
    {:else if light.lamp !== 'steady'}
      <span
        ><span class="soft">ripple</span>
        <NumberField
          label="Measured ripple, per cent"
          size={4}
          optional
          value={light.ripple_percent}
          fault={look.faults['light.ripple_percent']}
          onchange={(ripple_percent) => set({ ripple_percent })}
        /> %
        <span class="soft"
          >{light.ripple_percent === null ? `(usual: ${chosen?.ripple_percent ?? 0} %)` : 'measured'}</span
        ></span
      >
    {/if}
    {#if view}<span class="figure"
        >{rate(view.fps)} fps · {view.angle_deg.toFixed(1)}° · {(view.time_s * 1000).toFixed(2)} ms · readout {view.readout_ms ===
        null
          ? 'not known'
          : `${view.readout_ms.toFixed(1)} ms`}</span
      >{/if}
  </p>
  {#if look.problem?.faults.length === 0}<p class="bad" role="alert">{look.problem.message}</p>{/if}
  {#if view}
    <WaveDrawing wave={view.wave} lamp={chosen?.name ?? ''} />
    {#if view.no_safe}<p class="bad" data-testid="no-safe">{view.no_safe}</p>{/if}
    {#if view.safe.length}
      <p class="row" aria-label="Safe shutters">
        <span class="soft"
          >Safe at {rate(view.fps)} fps under {Number(view.hz.toFixed(2))} swings a second{view.safe_count >
          view.safe.length
            ? ` (the longest of ${view.safe_count})`
            : ''}:</span
        >
        {#each view.safe as s (s.time_s)}
          <button
            class="knob small figure"
            aria-pressed={Math.abs(s.angle_deg - view.angle_deg) < 0.02}
            onclick={() => setAngle(s.angle_deg)}
            >{Number(s.angle_deg.toFixed(2))}° <span class="soft">{s.text}</span></button
          >
        {/each}
      </p>
    {/if}
    {#if view.nearest && Math.abs(view.nearest.off_stops) > 0.001}
      {@const near = view.nearest}
      <p>
        Nearest to {view.angle_deg.toFixed(1)}° is <b class="figure">{near.angle_deg.toFixed(1)}°</b>
        ({near.text}), {Math.abs(near.off_stops).toFixed(2)} stops {near.off_stops > 0
          ? 'brighter'
          : 'darker'}.
        <button class="knob small" onclick={() => setAngle(near.angle_deg)}>Set it</button>
      </p>
    {/if}
    {#if view.rates.length}
      <p class="row">
        <span class="soft">Every frame alike (bands may stand) at</span>
        {#each view.rates as r (r.exact)}<span class="figure" title="{r.exact} fps">{rate(r.fps)}</span
          >{/each}
        <span class="soft">fps</span>
      </p>
    {/if}
    <LampTable lamps={view.lamps} chosen={light.lamp} />
    <p class="warn">{view.caution}</p>
    <p class="soft">
      Differences in stops; up to 0.03 nothing is seen, above 0.10 it is (common practice). Ripple of lamps
      differs by make, dimmer and age: test the lamps that you will have.
    </p>
  {/if}
</section>

<style>
  .flicker {
    display: grid;
    gap: 9px;
    grid-template-columns: minmax(0, 1fr);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: center;
  }
</style>
