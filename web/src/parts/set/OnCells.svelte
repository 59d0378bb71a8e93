<script lang="ts">
  import { ndStops } from '../../lib/light'
  import { aperture, mm, rate } from '../../lib/format'
  import { trade } from '../../lib/trade.svelte'
  import type { BodyOption, Held, LensOption, OnCamera, Planned } from '../../lib/types'
  import PickOne from './PickOne.svelte'

  interface Props {
    on: OnCamera
    planned: Planned | null
    body: BodyOption | null
    bodies: readonly BodyOption[]
    lens: LensOption | null
    held: Held | null
    onset: (part: Partial<OnCamera>) => void
  }
  let { on, planned, body, bodies, lens, held, onset }: Props = $props()

  type Cell = 'mode' | 'lens' | 'stop' | 'light' | 'rate' | 'card'
  let open = $state<Cell | null>(null)
  const toggle = (cell: Cell) => (open = open === cell ? null : cell)

  const CODES: Record<Cell, readonly string[]> = {
    mode: ['mode', 'format', 'crop'], lens: ['lens', 'focal', 'adapters', 'squeeze'], stop: ['stop'],
    light: ['ei', 'nd'], rate: ['rate', 'shutter'], card: ['body'],
  } // prettier-ignore
  const off = (cell: Cell) => held?.differences.some((d) => CODES[cell].includes(d.code)) ?? false
  const plan = $derived(planned?.on ?? null)
  /** What stands below a value. Whether it agrees is said by the server, and never without it. */
  const beside = (cell: Cell, plannedText: string, agreed: string) =>
    !plan
      ? cell === 'mode'
        ? on.mode
        : ''
      : !plannedText
        ? 'not planned'
        : held && !off(cell)
          ? agreed
          : `planned ${plannedText}`
  const marks = $derived(lens?.marks ?? planned?.marks ?? 'T')
  const stopText = (stop: number | null | undefined) => (stop == null ? '–' : `${marks}${aperture(stop)}`)
  const ndText = (stops: number | null | undefined) =>
    stops == null ? 'ND –' : stops ? `ND ${ndStops(stops)}` : 'no ND'
  const several = (name: string) => (body?.lenses.filter((l) => l.name === name).length ?? 0) > 1
  const lensText = ({ lens: name, lens_set, serial, focal_mm }: OnCamera) =>
    `${name || 'not said'}${lens_set && several(name) ? `, ${lens_set}` : ''}${serial ? ` no. ${serial}` : ''}${focal_mm ? ` at ${mm(focal_mm)}` : ''}`
  const rateText = ({ fps, shutter_deg }: OnCamera) =>
    `${rate(fps)} fps, ${shutter_deg ? trade.shutter(shutter_deg, fps ?? 25) : '–'}`
  const eiText = (ei: number | null | undefined) => (ei == null ? `${trade.sensitivity} –` : String(ei))
  const crops = $derived((on.crops ?? []).join(', '))
  const plannedCrops = $derived((plan?.crops ?? []).join(', '))
  const menuOf = (mode: string) => body?.formats.find((f) => f.mode === mode)?.menu ?? ''
  const SHUTTERS = [360, 270, 216, 180, 172.8, 144, 120, 90, 72, 45, 22.5]
  const rates = $derived(
    [...new Set(body?.formats.find((f) => f.name === on.format && f.mode === on.mode)?.rates ?? [])]
      .filter((text) => !text.includes('..'))
      .map((text) => {
        const [over, under] = text.split('/').map(Number)
        return (over ?? 0) / (under ?? 1)
      }),
  )
  const focals = $derived.by(() => {
    if (!lens || lens.short_mm >= lens.long_mm) return []
    const usual = [14, 16, 18, 21, 24, 25, 28, 32, 35, 40, 50, 65, 75, 85, 100, 135, 150, 180, 200, 250, 290]
    return [lens.short_mm, ...usual.filter((f) => f > lens.short_mm && f < lens.long_mm), lens.long_mm]
  })
  function pickLens(found: LensOption) {
    onset({
      lens: found.name,
      lens_set: found.lens_set,
      serial: '',
      adapters: found.adapters,
      focal_mm: found.short_mm < found.long_mm ? found.short_mm : null,
      ...(on.stop !== null && found.stops[0] && on.stop < found.stops[0] ? { stop: found.stops[0] } : {}),
    })
    // Which of several it is, is asked for in the same place.
    if (!found.serials.length) open = null
  }
</script>

{#snippet cell(name: Cell, title: string, value: string, plannedText: string, agreed = 'as planned')}
  <button
    class="cell"
    class:off={off(name)}
    aria-expanded={open === name}
    aria-label={[`${title}: ${value}`, beside(name, plannedText, 'as planned')].filter(Boolean).join('; ')}
    onclick={() => toggle(name)}
  >
    <span class="soft">{title}</span>
    <span class="value">{value}</span>
    <span class="soft">{beside(name, plannedText, agreed)}</span>
  </button>
{/snippet}

<div class="cells">
  {@render cell(
    'mode',
    'Mode',
    `${on.format || 'not said'}${crops ? ` + ${crops}` : ''}`,
    plan
      ? `${plan.mode !== on.mode ? `${plan.mode}, ` : ''}${plan.format}${plannedCrops ? ` + ${plannedCrops}` : ''}`
      : '',
    `${on.mode}, as planned`,
  )}
  {@render cell('lens', 'Lens', lensText(on), plan ? lensText(plan) : '')}
  {@render cell('stop', 'Stop', stopText(on.stop), plan?.stop == null ? '' : stopText(plan.stop))}
  {@render cell(
    'light',
    `${trade.sensitivity}, ND`,
    `${eiText(on.ei)}, ${ndText(on.nd_stops)}`,
    plan?.ei == null ? '' : `${eiText(plan.ei)}, ${ndText(plan.nd_stops)}`,
    planned?.nd_parts.join(' + ') || 'as planned',
  )}
  {@render cell('rate', 'Rate, shutter', rateText(on), plan ? rateText(plan) : '')}
  {@render cell('card', 'Body, card', `${on.body || '–'}, ${on.card || 'no card noted'}`, plan?.body ?? '')}
</div>

{#if open}
  <section class="picks" aria-label="What is really on">
    {#if open === 'mode' && body}
      <PickOne
        label="Recording format"
        options={body.formats.map((f) => ({
          value: f.id,
          label: f.name,
          more: f.mode,
          planned: f.name === plan?.format && f.mode === plan?.mode,
        }))}
        value={body.formats.find((f) => f.name === on.format && f.mode === on.mode)?.id ?? null}
        onpick={(id) => {
          const found = body.formats.find((f) => f.id === id)
          if (found) onset({ body: body.name, mode: found.mode, format: found.name })
        }}
      />
      {#if menuOf(on.mode)}<p class="soft">{menuOf(on.mode)}</p>{/if}
      {#if body.crops.length}
        <PickOne
          label="Switches that are on"
          options={body.crops.map((name) => ({
            value: name,
            label: name,
            more: on.crops?.includes(name) ? 'on' : 'off',
            planned: plan?.crops?.includes(name) ?? false,
          }))}
          value={null}
          pressed={on.crops ?? []}
          onpick={(name) => {
            const now = on.crops ?? []
            onset({ crops: now.includes(name) ? now.filter((each) => each !== name) : [...now, name] })
          }}
        />
      {/if}
    {:else if open === 'lens' && body}
      <PickOne
        label="Lens"
        options={body.lenses.map((l) => ({
          value: l.id,
          label: l.name,
          more: [several(l.name) ? l.lens_set : '', l.contacts ? '' : 'no contacts', ...l.adapters]
            .filter(Boolean)
            .join(', '),
          planned: l.name === plan?.lens && (!plan.lens_set || l.lens_set === plan.lens_set),
        }))}
        value={lens?.id ?? null}
        onpick={(id) => {
          const found = body.lenses.find((l) => l.id === id)
          if (found) pickLens(found)
        }}
      />
    {:else if open === 'stop'}
      <PickOne
        label="Stop"
        options={(lens?.stops ?? []).map((stop) => ({
          value: stop,
          label: stopText(stop),
          more: '',
          planned: plan?.stop != null && Math.abs(stop / plan.stop - 1) < 0.03,
        }))}
        value={on.stop}
        onpick={(stop) => onset({ stop })}
      />
    {:else if open === 'light' && body}
      <PickOne
        label={trade.sensitivity}
        options={body.eis.map((ei) => ({ value: ei, label: String(ei), more: '', planned: ei === plan?.ei }))}
        value={on.ei}
        onpick={(ei) => onset({ ei })}
      />
      <PickOne
        label="ND"
        options={body.nd_stops.map((stops) => ({
          value: stops,
          label: ndText(stops),
          more: '',
          planned: stops === plan?.nd_stops,
        }))}
        value={on.nd_stops}
        onpick={(nd_stops) => onset({ nd_stops })}
      />
    {:else if open === 'rate'}
      <PickOne
        label="Rate"
        options={rates.map((fps) => ({
          value: fps,
          label: rate(fps),
          more: '',
          planned: plan?.fps != null && Math.abs(fps / plan.fps - 1) < 2e-4,
        }))}
        value={on.fps}
        onpick={(fps) => onset({ fps })}
      />
      <PickOne
        label="Shutter"
        options={SHUTTERS.map((deg) => ({
          value: deg,
          label: trade.shutter(deg, on.fps ?? 25),
          more: '',
          planned: deg === plan?.shutter_deg,
        }))}
        value={on.shutter_deg}
        onpick={(shutter_deg) => onset({ shutter_deg })}
      />
    {:else if open === 'card'}
      <PickOne
        label="Body"
        options={bodies.map((b) => ({
          value: b.name,
          label: b.name,
          more: '',
          planned: b.name === plan?.body,
        }))}
        value={on.body}
        onpick={(name) => onset({ body: name, mode: '', format: '', crops: null })}
      />
      <label class="card"
        ><span class="soft">Card</span>
        <input
          class="written"
          maxlength="40"
          autocomplete="off"
          value={on.card}
          onchange={(event) => onset({ card: event.currentTarget.value.trim() })}
        /></label
      >
    {/if}
    {#if open === 'lens' && lens?.serials.length}
      <PickOne
        label="Which of them"
        options={lens.serials.map((number) => ({ value: number, label: number, more: '', planned: false }))}
        value={on.serial || null}
        onpick={(serial) => onset({ serial })}
      />
    {/if}
    {#if open === 'lens' && focals.length}
      <PickOne
        label="Focal length"
        options={focals.map((f) => ({
          value: f,
          label: mm(f),
          more: '',
          planned: plan?.focal_mm != null && Math.abs(f / plan.focal_mm - 1) < 0.02,
        }))}
        value={on.focal_mm}
        onpick={(focal_mm) => onset({ focal_mm })}
      />
    {/if}
    <button class="knob" onclick={() => (open = null)}>Done</button>
  </section>
{/if}

<style>
  .cells {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 6px;
  }
  /* Six of them: two beside one another, or three, and never four and two. */
  @media (min-width: 560px) {
    .cells {
      grid-template-columns: repeat(3, minmax(0, 1fr));
    }
  }
  .cell {
    display: grid;
    align-content: start;
    gap: 1px;
    min-height: 68px;
    padding: 6px 10px;
    border: 1px solid var(--line);
    background: var(--cell);
    text-align: left;
    cursor: pointer;
  }
  .cell[aria-expanded='true'] {
    border-color: var(--accent);
  }
  .cell .soft {
    font-size: 13px;
  }
  .value {
    font-size: 17px;
    line-height: 1.2;
  }
  .off {
    border-color: var(--bad);
  }
  .off .value {
    color: var(--bad);
  }
  .picks {
    display: grid;
    gap: 8px;
    padding: 10px;
    border: 1px solid var(--accent);
    background: var(--panel);
    justify-items: start;
  }
  .card {
    display: grid;
    width: 100%;
  }
</style>
