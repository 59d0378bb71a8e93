<script lang="ts">
  import type { Faults } from '../../lib/faults'
  import { aperture } from '../../lib/format'
  import { shutterTime, three } from '../../lib/light'
  import type { BenchState, ExposureView, Light, Mover } from '../../lib/types'
  import NumberField from '../fields/NumberField.svelte'

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
    <select
      class="set"
      aria-label="How the light is known"
      value={light.known_by}
      onchange={(event) =>
        set({
          known_by: event.currentTarget.value as Light['known_by'],
          lux: three(view.lux),
          foot_candles: three(view.foot_candles),
        })}
      ><option value="lux">measured, lux</option><option value="foot_candles">measured, foot-candles</option
      ><option value="metered">as metered at</option></select
    >
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
      EI <NumberField
        label="Metered EI"
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
    <select
      class="set figure"
      aria-label="EI"
      value={String(view.ei)}
      onchange={(event) => set({ ei: Number(event.currentTarget.value) })}
    >
      {#each [...new Set([...view.eis.map((e) => e.ei), view.ei])].toSorted((a, b) => a - b) as ei (ei)}
        <option value={String(ei)}>{ei}{view.eis.find((e) => e.ei === ei)?.native ? ' native' : ''}</option>
      {/each}
    </select>
  {:else if row.key === 'stop'}
    <select
      class="set figure"
      aria-label="Stop of the ledger"
      value={String(view.t_stop)}
      onchange={(event) => onchange({ stop: Number(event.currentTarget.value) })}
    >
      {#each [...new Set([...stops, view.t_stop])].toSorted((a, b) => a - b) as stop (stop)}
        <option value={String(stop)}>{view.marks}{aperture(stop)}</option>
      {/each}
    </select>
  {:else if row.key === 'shutter'}
    <select
      class="set"
      aria-label="Shutter by"
      value={light.shutter}
      onchange={(event) =>
        set(
          event.currentTarget.value === 'time'
            ? { shutter: 'time', shutter_s: Number(view.time_s.toPrecision(6)) }
            : { shutter: 'angle', shutter_deg: Math.min(Number(view.angle_deg.toFixed(2)), 360) },
        )}><option value="angle">angle</option><option value="time">time</option></select
    >
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
    <select
      class="set figure"
      aria-label="ND"
      value={String(light.nd_stops)}
      onchange={(event) => set({ nd_stops: Number(event.currentTarget.value) })}
    >
      {#each view.nds as nd (nd.stops)}
        <option value={String(nd.stops)}
          >{nd.stops ? `${nd.stops} stops: ${nd.parts.join(' + ')}` : 'none'}</option
        >
      {/each}
      {#if !view.nds.some((nd) => nd.stops === light.nd_stops)}
        <option value={String(light.nd_stops)}>{light.nd_stops} stops, not in the kit</option>
      {/if}
    </select>
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
