<script lang="ts">
  import * as client from '../../lib/client'
  import { rate } from '../../lib/format'
  import { Look } from '../../lib/look.svelte'
  import type { BenchState, FlickerView, Light } from '../../lib/types'
  import NumberField from '../../parts/NumberField.svelte'
  import WaveDrawing from '../../parts/WaveDrawing.svelte'

  interface Props {
    productionId: number
    state: BenchState
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { productionId, state: bench, onchange }: Props = $props()

  const look = new Look(
    () => bench,
    (state, signal) => client.viewFlicker(productionId, state, signal),
  )
  // Whenever the Bench changes.
  $effect(() => {
    void bench
    look.want()
  })

  const view = $derived(look.answer)
  const light = $derived(bench.light)
  const set = (part: Partial<Light>) => onchange({ light: { ...light, ...part } })
  const setAngle = (angle: number) =>
    set({ shutter: 'angle', shutter_deg: Number(Math.min(angle, 360).toFixed(4)) })
  const SIGNS: Record<FlickerView['lamps'][number]['verdict'], string> = {
    none: '✓ nothing to see',
    borderline: '≈ borderline: shoot a test',
    shows: '✗ shows',
  }
  const chosen = $derived(view?.lamps.find((l) => l.kind === light.lamp))
  const depth = (stops: number | null) => (stops === null ? '–' : stops > 9.99 ? '> 10' : stops.toFixed(2))
</script>

<section aria-label="Flicker" class="flicker">
  <p class="row">
    <span role="group" aria-label="Mains frequency"
      ><span class="soft">Mains</span>
      {#each [50, 60] as const as hz (hz)}
        <button class="knob small" aria-pressed={light.mains_hz === hz} onclick={() => set({ mains_hz: hz })}
          >{hz} Hz</button
        >
      {/each}</span
    >
    <label
      ><span class="soft">Lamp</span>
      <select
        class="set"
        aria-label="Kind of lamp"
        value={light.lamp}
        onchange={(event) => set({ lamp: event.currentTarget.value as Light['lamp'], ripple_percent: null })}
      >
        {#each view?.lamps ?? [] as l (l.kind)}<option value={l.kind}>{l.name}</option>{/each}
      </select></label
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
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="wide" role="group" aria-label="Lamps under this shutter" tabindex="0">
      <table>
        <caption>Lamps under this shutter</caption>
        <thead
          ><tr
            ><th>Lamp</th><th class="n">Swings</th><th>Verdict</th><th class="n">Frames differ</th><th
              class="n">Bands</th
            ><th class="n">Band depth</th><th>What is seen</th></tr
          ></thead
        >
        <tbody>
          {#each view.lamps as l (l.kind)}
            <tr class:now={l.kind === light.lamp} data-lamp={l.kind}>
              <td>{l.name}</td>
              <td class="n figure">{l.kind === 'steady' ? '–' : `${Number(l.hz.toFixed(1))} Hz`}</td>
              <td class={l.verdict}>{SIGNS[l.verdict]}</td>
              <td class="n figure">{depth(l.frame_stops)}</td>
              <td class="n figure">{l.bands === null || l.kind === 'steady' ? '–' : l.bands.toFixed(1)}</td>
              <td class="n figure">{depth(l.band_stops)}</td>
              <td>{l.text}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
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
  .small {
    min-height: 26px;
    padding: 0 0.5rem;
  }
  .wide {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    min-width: 780px;
    width: 100%;
  }
  caption {
    text-align: left;
    color: var(--ink-soft);
  }
  th,
  td {
    padding: 2px 14px 2px 0;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
  }
  th {
    color: var(--ink-soft);
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
  .now td:first-child {
    color: var(--accent);
  }
  .none {
    color: var(--ok);
    white-space: nowrap;
  }
  .borderline,
  .warn {
    color: var(--warn);
  }
  .shows,
  .bad {
    color: var(--bad);
  }
</style>
