<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { figureOptions, stopOptions, withChosen, wordOptions } from '../../lib/options'
  import type { Faults } from '../../lib/faults'
  import { ndStops, shutterTime, three } from '../../lib/light'
  import { trade } from '../../lib/trade.svelte'
  import type { BenchState, ExposureView, Light, Mover } from '../../lib/types'
  import NumberField from '../fields/NumberField.svelte'

  const KNOWN_BY = [
    { value: 'lux', label: 'measured, lux' },
    { value: 'foot_candles', label: 'measured, foot-candles' },
    { value: 'metered', label: 'as metered at' },
  ] as const

  interface Props {
    /** The row of the ledger whose setting this is. */
    row: ExposureView['ledger'][number]
    view: ExposureView
    light: Light
    /** The lens's marks. */
    stops: readonly number[]
    faults: Faults
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { row, view, light, stops, faults, onchange }: Props = $props()

  const set = (part: Partial<Light>) => onchange({ light: { ...light, ...part } })
  const fault = (name: string) => faults[`light.${name}`]
  const MOVES: Partial<Record<ExposureView['ledger'][number]['key'], Mover>> = {
    light: 'light',
    ei: 'ei',
    stop: 'stop',
    shutter: 'shutter',
    nd: 'nd',
  }

  /** Pressed once it moves after those that move already; pressed again it is held. */
  const toggle = (mover: Mover) =>
    set({
      may_move: light.may_move.includes(mover)
        ? light.may_move.filter((m) => m !== mover)
        : [...light.may_move, mover],
    })
</script>

<span class="controls">
  {#if row.key === 'light'}
    <Choice
      label="How the light is known"
      options={KNOWN_BY}
      value={light.known_by}
      onchange={(known_by) => set({ known_by, lux: three(view.lux), foot_candles: three(view.foot_candles) })}
    />
    {#if light.known_by === 'lux'}
      <NumberField
        label="Light, lux"
        value={light.lux}
        fault={fault('lux')}
        onchange={(lux) => lux !== null && set({ lux })}
      /> lux <span class="soft">= {three(view.foot_candles)} fc</span>
    {:else if light.known_by === 'foot_candles'}
      <NumberField
        label="Light, foot-candles"
        value={light.foot_candles}
        fault={fault('foot_candles')}
        onchange={(foot_candles) => foot_candles !== null && set({ foot_candles })}
      /> fc <span class="soft">= {three(view.lux)} lux</span>
    {:else}
      {@const metered = light.metered}
      T<NumberField
        label="Metered stop"
        size={3}
        value={metered.t_stop}
        fault={fault('metered.t_stop')}
        onchange={(t_stop) => t_stop !== null && set({ metered: { ...metered, t_stop } })}
      />
      {trade.sensitivity}
      <NumberField
        label="Metered {trade.sensitivity}"
        size={5}
        value={metered.ei}
        fault={fault('metered.ei')}
        onchange={(ei) => ei !== null && set({ metered: { ...metered, ei: Math.round(ei) } })}
      />
      <NumberField
        label="Metered shutter time, seconds"
        size={6}
        value={metered.shutter_s}
        fault={fault('metered.shutter_s')}
        onchange={(shutter_s) => shutter_s !== null && set({ metered: { ...metered, shutter_s } })}
      /> s, ND <NumberField
        label="Metered ND, stops"
        size={3}
        value={metered.nd_stops}
        fault={fault('metered.nd_stops')}
        onchange={(nd_stops) => nd_stops !== null && set({ metered: { ...metered, nd_stops } })}
      /> <span class="soft">= {three(view.lux)} lux</span>
    {/if}
  {:else if row.key === 'ei'}
    <Choice
      label={trade.sensitivity}
      figure
      options={figureOptions(
        view.eis.map((e) => e.ei),
        view.ei,
        (ei) => {
          const known = view.eis.find((e) => e.ei === ei)
          return trade.listed(ei, known?.native ?? false, known?.gain_db)
        },
      )}
      value={view.ei}
      onchange={(ei) => set({ ei })}
    />
  {:else if row.key === 'stop'}
    <Choice
      label="Stop of the ledger"
      figure
      options={stopOptions({ stops, stop: view.t_stop, marks: view.marks })}
      value={view.t_stop}
      onchange={(stop) => onchange({ stop })}
    />
  {:else if row.key === 'shutter'}
    <Choice
      label="Shutter by"
      options={wordOptions(['angle', 'time'])}
      value={light.shutter}
      onchange={(shutter) =>
        set(
          shutter === 'time'
            ? { shutter, shutter_s: Number(view.time_s.toPrecision(6)) }
            : { shutter, shutter_deg: Math.min(Number(view.angle_deg.toFixed(2)), 360) },
        )}
    />
    {#if light.shutter === 'angle'}<NumberField
        label="Shutter angle, degrees"
        size={5}
        value={light.shutter_deg}
        fault={fault('shutter_deg')}
        onchange={(shutter_deg) => shutter_deg !== null && set({ shutter_deg })}
      />° <span class="soft">= {shutterTime(view.time_s)}</span>
    {:else}<NumberField
        label="Shutter time, seconds"
        size={7}
        value={light.shutter_s}
        fault={fault('shutter_s')}
        onchange={(shutter_s) => shutter_s !== null && set({ shutter_s })}
      /> s <span class="soft">= {shutterTime(view.time_s)}, {view.angle_deg.toFixed(1)}°</span>{/if}
  {:else if row.key === 'nd'}
    <Choice
      label="ND"
      figure
      options={withChosen(
        view.nds.map((nd) => ({
          value: nd.stops,
          label: nd.stops ? `${nd.stops} stops: ${nd.parts.join(' + ')}` : 'none',
        })),
        light.nd_stops,
        `${ndStops(light.nd_stops)}, not in the kit`,
      )}
      value={light.nd_stops}
      onchange={(nd_stops) => set({ nd_stops })}
    />
  {:else}
    <span class="soft">{row.setting}</span>
  {/if}
  {#if MOVES[row.key]}
    {@const mover = MOVES[row.key] as Mover}
    {@const place = light.may_move.indexOf(mover)}
    <button
      class="knob small move"
      aria-pressed={place >= 0}
      aria-label="{row.name} may move"
      onclick={() => toggle(mover)}>{place >= 0 ? `moves, ${place + 1}.` : 'held'}</button
    >
  {/if}
</span>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.4rem;
    align-items: center;
  }
  .move {
    margin-left: auto;
    min-width: 5.6rem;
  }
  @media (max-width: 560px) {
    .move {
      min-width: 0;
    }
  }
</style>
