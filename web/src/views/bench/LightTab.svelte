<script lang="ts">
  import * as client from '../../lib/client'
  import { aperture, rate, stops as stopsText } from '../../lib/format'
  import { Look } from '../../lib/look.svelte'
  import type { BenchState, ExposureView, Light, Mover } from '../../lib/types'
  import LedgerDrawing from '../../parts/LedgerDrawing.svelte'
  import NumberField from '../../parts/NumberField.svelte'

  interface Props {
    productionId: number
    state: BenchState
    stops: number[]
    onchange: (part: Partial<BenchState>, kind?: string) => void
  }
  let { productionId, state: bench, stops, onchange }: Props = $props()

  const look = new Look(
    () => bench,
    (state, signal) => client.viewExposure(productionId, state, signal),
  )
  // Whenever the Bench changes.
  $effect(() => {
    void bench
    look.want()
  })

  const view = $derived(look.answer)
  const light = $derived(bench.light)
  const set = (part: Partial<Light>) => onchange({ light: { ...light, ...part } })
  const fault = (name: string) => look.faults[`light.${name}`]
  const three = (value: number) => Number(value.toPrecision(3))
  const time = (seconds: number) =>
    seconds >= 0.4 ? `${three(seconds)} s` : `1/${Number((1 / seconds).toFixed(1))} s`
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

{#snippet control(row: ExposureView['ledger'][number])}
  <span class="controls">
    {#if view}
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
          ><option value="lux">measured, lux</option><option value="foot_candles"
            >measured, foot-candles</option
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
            <option value={String(ei)}
              >{ei}{view.eis.find((e) => e.ei === ei)?.native ? ' native' : ''}</option
            >
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
          />° <span class="soft">= {time(view.time_s)}</span>
        {:else}<NumberField
            label="Shutter time, seconds"
            size={7}
            value={light.shutter_s}
            fault={fault('shutter_s')}
            onchange={(shutter_s) => shutter_s !== null && set({ shutter_s })}
          /> s <span class="soft">= {time(view.time_s)}, {view.angle_deg.toFixed(1)}°</span>{/if}
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
    {/if}
  </span>
{/snippet}

<section aria-label="Exposure" class="light">
  {#if look.problem?.faults.length === 0}<p class="bad" role="alert">{look.problem.message}</p>{/if}
  {#if view}
    <div class="main">
      <LedgerDrawing
        ledger={view.ledger}
        off={view.off_stops}
        offText={view.off_text}
        balanced={view.balanced}
        {control}
      />
      <p class="balance" data-testid="balance">
        <span class={view.balance.balanced ? 'ok' : 'warn'}>{view.balance.text}</span>
        {#if view.balance.next}<span class="soft">{view.balance.next}</span>{/if}
        {#if view.balance.changed}
          <button
            class="knob"
            onclick={() =>
              view &&
              onchange({
                light: view.balance.light as Light,
                stop: Number(view.balance.stop.toPrecision(6)),
              })}>Set it so</button
          >
        {/if}
      </p>
      {#each view.notes as note (note)}<p class="warn">{note}</p>{/each}
      <p class="soft">
        Incident light after ISO 2720, C = 250. What is held stays; what may move does so in its order, to
        real values of the body, the filters of the kit and the lens's marks; the light is set exactly.
        Cropping changes no exposure.
      </p>
    </div>
    <div class="side">
      <table>
        <caption>Light for a stop</caption>
        <thead><tr><th>Stop</th><th class="n">lux</th><th class="n">fc</th></tr></thead>
        <tbody>
          {#each view.light_for_stops.slice(0, 16) as row (row.stop)}
            <tr class:now={Math.abs(row.stop - view.t_stop) < 1e-6}
              ><td class="figure">{view.marks}{aperture(row.stop)}</td><td class="n figure"
                >{three(row.lux)}</td
              ><td class="n figure">{three(row.foot_candles)}</td></tr
            >
          {/each}
        </tbody>
      </table>
      <p>
        <span class="soft">This light allows</span>
        <span class="figure">{view.marks}{view.stop_for_light.toFixed(2)}</span>
      </p>
    </div>
    <div class="side">
      <table>
        <caption>What a rate costs, same angle</caption>
        <tbody>
          {#each view.rates as row (row.fps)}
            <tr class:now={Math.abs(row.fps - bench.fps) < 1e-6} class:gone={!row.possible}
              ><td class="figure">{rate(row.fps)} fps</td><td class="n figure"
                >{row.stops.toFixed(1)} stops</td
              ><td class="soft">{row.possible ? '' : 'not here'}</td></tr
            >
          {/each}
        </tbody>
      </table>
      <table>
        <caption>What an angle gives, against 180°</caption>
        <tbody>
          {#each view.angles as row (row.angle_deg)}
            <tr class:now={Math.abs(row.angle_deg - view.angle_deg) < 0.01}
              ><td class="figure n">{Number(row.angle_deg.toFixed(2))}°</td><td class="n figure"
                >{stopsText(row.stops)}</td
              ><td class="n figure">{time(row.time_s)}</td></tr
            >
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  .light {
    display: grid;
    gap: 10px 26px;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: start;
  }
  .main {
    display: grid;
    gap: 6px;
    grid-template-columns: minmax(0, 1fr);
    min-width: 0;
    overflow-x: auto;
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.4rem;
    align-items: center;
  }
  .small {
    min-height: 24px;
    padding: 0 0.5rem;
  }
  .move {
    margin-left: auto;
    min-width: 5.6rem;
  }
  .balance {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: center;
  }
  .ok {
    color: var(--ok);
  }
  .warn {
    color: var(--warn);
  }
  .bad {
    color: var(--bad);
    grid-column: 1 / -1;
  }
  .side {
    display: grid;
    gap: 10px;
  }
  .side table {
    border-collapse: collapse;
    font-size: 14px;
  }
  caption {
    text-align: left;
    color: var(--ink-soft);
    white-space: nowrap;
  }
  .side :is(th, td) {
    padding: 0 12px 0 0;
    font-weight: 400;
    text-align: left;
    line-height: 1.35;
  }
  .side th {
    color: var(--ink-soft);
  }
  .side .n {
    text-align: right;
  }
  .now td {
    color: var(--accent);
  }
  .gone td {
    color: var(--ink-soft);
  }
  @media (max-width: 1000px) {
    .light {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }
    .main {
      grid-column: 1 / -1;
    }
  }
  @media (max-width: 560px) {
    .move {
      min-width: 0;
    }
    .light {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
