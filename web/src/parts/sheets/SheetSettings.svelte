<script lang="ts">
  import { formatOptions, lensOptions, wordOptions } from '../../lib/options'
  import { asksFor, kindOf, PAPERS } from '../../lib/sheets'
  import type { Package, Problem, SheetPlan, Unit } from '../../lib/types'
  import { BY } from '../../lib/worth'
  import Choice from '../controls/Choice.svelte'
  import Segments from '../controls/Segments.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import NumberField from '../fields/NumberField.svelte'
  import DistanceList from './DistanceList.svelte'

  interface Props {
    plan: SheetPlan
    equipment: Package
    unit: Unit
    days: readonly string[]
    kits: readonly string[]
    comparisons: readonly string[]
    /** Names of the shots. */
    shots: readonly string[]
    /** Whether there are shots that are made with something: what a sheet is of where it names nothing. */
    uses: boolean
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<SheetPlan>) => void
  }
  let { plan, equipment, unit, days, kits, comparisons, shots, uses, read, onchange }: Props = $props()

  const asks = (what: Parameters<typeof asksFor>[1]) => asksFor(plan, what)
  const shown = $derived<Unit>(plan.unit === 'ft' ? 'ft' : plan.unit === 'm' ? 'm' : unit)
  const lenses = $derived(lensOptions(equipment.lens_sets))
  const formats = $derived(formatOptions(equipment.bodies))
  const few = $derived(['look', 'depth', 'field', 'monitor'].includes(plan.kind))
  /** What a sheet is of where it names none. */
  const planned = $derived(!plan.everything && uses)
  const lensesOf = $derived(planned ? 'what is planned' : 'all of them')
  const formatsOf = $derived(
    planned
      ? 'what is planned'
      : plan.kind === 'depth'
        ? "the Bench's"
        : few
          ? "the Bench's and what is pinned"
          : 'all of them',
  )
  const MM_OF_INCH = 25.4

  interface Chip {
    key: string
    label: string
    drop: Partial<SheetPlan>
  }
  const without = <T,>(list: readonly T[], gone: T) => list.filter((each) => each !== gone)
  const labelOf = (options: readonly { value: number; label: string; group?: string }[], id: number) => {
    const found = options.find((option) => option.value === id)
    return found ? found.label : 'gone'
  }
  const lensChips = $derived<Chip[]>([
    ...plan.lens_sets.map((name) => ({ key: name, label: `all of ${name}`, drop: { lens_sets: without(plan.lens_sets, name) } })),
    ...plan.lens_ids.map((id) => ({ key: `l${id}`, label: labelOf(lenses, id), drop: { lens_ids: without(plan.lens_ids, id) } })),
  ]) // prettier-ignore
  const formatChips = $derived<Chip[]>(
    plan.format_ids.map((id) => ({ key: `f${id}`, label: labelOf(formats, id), drop: { format_ids: without(plan.format_ids, id) } })),
  ) // prettier-ignore
  const bodyChips = $derived<Chip[]>(
    plan.bodies.map((name) => ({ key: name, label: name, drop: { bodies: without(plan.bodies, name) } })),
  )
  const dayChips = $derived<Chip[]>(
    plan.days.map((day) => ({ key: day, label: day || 'no day', drop: { days: without(plan.days, day) } })),
  )
  const lensAdds = $derived([
    ...equipment.lens_sets
      .filter((set) => !plan.lens_sets.includes(set.name))
      .map((set) => ({ value: `set ${set.name}`, label: `all of ${set.name}`, group: 'Sets' })),
    ...lenses
      .filter((option) => !plan.lens_ids.includes(option.value))
      .map((option) => ({ ...option, value: `lens ${option.value}` })),
  ])
  function addLens(value: string) {
    const [, what, rest = ''] = /^(set|lens) (.*)$/.exec(value) ?? []
    onchange(
      what === 'set'
        ? { lens_sets: [...plan.lens_sets, rest] }
        : { lens_ids: [...plan.lens_ids, Number(rest)] },
    )
  }
</script>

{#snippet chips(list: Chip[], what: string)}
  {#each list as chip (chip.key)}
    <button
      class="knob small"
      title="Let {chip.label} go"
      aria-label="{what} {chip.label}: let it go"
      onclick={() => onchange(chip.drop)}>{chip.label} ×</button
    >
  {/each}
{/snippet}

<div class="settings" role="group" aria-label="What this sheet is">
  <p class="soft">{kindOf(plan.kind).told}.</p>
  <label class="line"
    ><span class="soft">title</span>
    <EntryField
      label="Title"
      kind="text"
      size={22}
      value={plan.name}
      placeholder={kindOf(plan.kind).title}
      oninput={(name) => onchange({ name: String(name) })}
    /></label
  >
  {#if asks('lenses')}
    <div class="line">
      <span class="soft">lenses</span>
      <span class="chips">
        {@render chips(lensChips, 'lenses')}
        <Choice
          label="Add lenses"
          options={lensAdds}
          value={null}
          placeholder={lensChips.length ? '+' : lensesOf}
          search
          onchange={(value) => value !== null && addLens(String(value))}
        />
      </span>
    </div>
  {/if}
  {#if asks('bodies')}
    <div class="line">
      <span class="soft">bodies</span>
      <span class="chips">
        {@render chips(bodyChips, 'bodies')}
        <Choice
          label="Add a body"
          options={equipment.bodies
            .filter((body) => !plan.bodies.includes(body.name))
            .map((body) => ({ value: body.name, label: body.name }))}
          value={null}
          placeholder={bodyChips.length ? '+' : 'all of them'}
          onchange={(value) => value !== null && onchange({ bodies: [...plan.bodies, String(value)] })}
        />
      </span>
    </div>
  {/if}
  {#if asks('formats')}
    <div class="line">
      <span class="soft">formats</span>
      <span class="chips">
        {@render chips(formatChips, 'formats')}
        <Choice
          label="Add a format"
          options={formats.filter((option) => !plan.format_ids.includes(option.value))}
          value={null}
          placeholder={formatChips.length ? '+' : bodyChips.length ? 'all of these' : formatsOf}
          search
          onchange={(value) =>
            value !== null && onchange({ format_ids: [...plan.format_ids, Number(value)] })}
        />
      </span>
    </div>
  {/if}
  {#if uses && (asks('lenses') || asks('formats'))}
    <label class="line"
      ><span class="soft">else</span>
      <span
        ><input
          type="checkbox"
          checked={plan.everything}
          onchange={(event) => onchange({ everything: event.currentTarget.checked })}
        /> everything there is, not only what is planned</span
      ></label
    >
  {/if}
  {#if asks('distances')}
    <div class="line">
      <span class="soft">distances</span>
      <DistanceList
        metres={plan.distances_m}
        unit={shown}
        {read}
        placeholder={plan.kind === 'look' ? (shown === 'm' ? '8' : "26'") : 'the usual marks'}
        onchange={(distances_m) => onchange({ distances_m })}
      />
    </div>
  {/if}
  {#if asks('stops')}
    <label class="line"
      ><span class="soft">stops</span>
      <EntryField
        label="Stops"
        kind="numbers"
        size={18}
        value={plan.stops}
        placeholder="whole ones"
        oninput={(value) => {
          const stops = (Array.isArray(value) ? value : []).filter(
            (stop) => typeof stop === 'number' && stop > 0.3,
          )
          onchange({ stops: stops as number[] })
        }}
      /></label
    >
  {/if}
  {#if asks('focal')}
    <label class="line"
      ><span class="soft">zooms at</span>
      <span
        ><NumberField
          label="Focal length of zooms"
          optional
          value={plan.focal_mm}
          onchange={(focal_mm) => (focal_mm === null || focal_mm > 0.5) && onchange({ focal_mm })}
        /> mm <span class="soft">{plan.focal_mm === null ? '(both ends)' : ''}</span></span
      ></label
    >
  {/if}
  {#if asks('each')}
    <div class="line">
      <span class="soft">a page for each</span>
      <Segments
        label="A page for each"
        options={[
          { value: 'lens', label: 'lens' },
          { value: 'distance', label: 'distance' },
        ]}
        value={plan.each}
        onchange={(each) => onchange({ each })}
      />
    </div>
  {/if}
  {#if asks('days') && days.length}
    <div class="line">
      <span class="soft">days</span>
      <span class="chips">
        {@render chips(dayChips, 'days')}
        <Choice
          label="Add a day"
          options={days
            .filter((day) => !plan.days.includes(day))
            .map((day) => ({ value: day, label: day || 'no day' }))}
          value={null}
          placeholder={dayChips.length ? '+' : 'all of them'}
          onchange={(value) => value !== null && onchange({ days: [...plan.days, String(value)] })}
        />
      </span>
    </div>
  {/if}
  {#if asks('kit') && kits.length}
    <div class="line">
      <span class="soft">kit</span>
      <Choice
        label="Kit"
        options={kits.map((name) => ({ value: name, label: name }))}
        value={plan.which || kits[0]}
        onchange={(which) => onchange({ which: String(which) })}
      />
    </div>
  {/if}
  {#if asks('comparison') && comparisons.length}
    <div class="line">
      <span class="soft">comparison</span>
      <Choice
        label="Comparison"
        options={comparisons.map((name) => ({ value: name, label: name }))}
        value={plan.which || comparisons[0]}
        onchange={(which) => onchange({ which: String(which) })}
      />
    </div>
  {/if}
  {#if asks('shot')}
    {#if shots.length}<div class="line">
        <span class="soft">shot</span>
        <Choice
          label="Shot"
          search
          options={shots.map((name) => ({ value: name, label: name }))}
          value={plan.which || shots[0]}
          onchange={(which) => onchange({ which: String(which) })}
        />
      </div>{/if}
    <div class="line">
      <span class="soft">ranked by</span>
      <Choice
        label="Ranked by"
        options={BY}
        value={plan.ranked_by}
        onchange={(ranked_by) => onchange({ ranked_by })}
      />
    </div>
    <div class="line">
      <span class="soft">paid for</span>
      <Segments
        label="Paid for"
        options={wordOptions(['hire', 'buy'])}
        value={plan.pay}
        onchange={(pay) => onchange({ pay })}
      />
    </div>
  {/if}
  {#if asks('monitor')}
    <label class="line"
      ><span class="soft">picture is wide</span>
      <span
        ><NumberField
          label="Width of the monitor's picture"
          value={shown === 'm' ? plan.monitor_mm : Math.round((plan.monitor_mm / MM_OF_INCH) * 100) / 100}
          onchange={(wide) => {
            const mm = (wide ?? 0) * (shown === 'm' ? 1 : MM_OF_INCH)
            if (mm > 10 && mm <= 10_000) onchange({ monitor_mm: mm })
          }}
        />
        {shown === 'm' ? 'mm' : 'in'}</span
      ></label
    >
  {/if}
  {#if asks('pictures')}
    <label class="line"
      ><span class="soft">pictures</span>
      <span
        ><input
          type="checkbox"
          checked={plan.pictures}
          onchange={(event) => onchange({ pictures: event.currentTarget.checked })}
        /> through the finder</span
      ></label
    >
  {/if}
  {#if asks('unit')}
    <div class="line">
      <span class="soft">unit</span>
      <Segments
        label="Unit"
        options={[
          { value: 'own', label: unit === 'm' ? 'm, as usual' : 'ft, as usual' },
          ...(unit === 'm'
            ? ([{ value: 'ft', label: 'ft' }] as const)
            : ([{ value: 'm', label: 'm' }] as const)),
          { value: 'both', label: 'both' },
        ]}
        value={plan.unit ?? 'own'}
        onchange={(value) => onchange({ unit: value === 'own' ? null : value })}
      />
    </div>
  {/if}
  {#if asks('from_front')}
    <div class="line">
      <span class="soft">distances from</span>
      <Segments
        label="Distances from"
        options={[
          { value: 'sensor', label: 'sensor plane' },
          { value: 'front', label: 'front of the lens' },
        ]}
        value={plan.from_front ? 'front' : 'sensor'}
        onchange={(value) => onchange({ from_front: value === 'front' })}
      />
    </div>
  {/if}
  <label class="line"
    ><span class="soft">who has it</span>
    <EntryField
      label="Who has it"
      kind="text"
      size={22}
      value={plan.given_to}
      placeholder="nobody yet"
      oninput={(to) => onchange({ given_to: String(to) })}
    /></label
  >
  <div class="line">
    <span class="soft">paper</span>
    <Choice label="Paper" options={PAPERS} value={plan.paper} onchange={(paper) => onchange({ paper })} />
  </div>
  <div class="line">
    <span class="soft">type</span>
    <Segments
      label="Type"
      options={[
        { value: 'normal', label: 'normal' },
        { value: 'large', label: 'large' },
      ]}
      value={plan.large ? 'large' : 'normal'}
      onchange={(value) => onchange({ large: value === 'large' })}
    />
  </div>
  {#if !['pocket', 'telephone'].includes(plan.paper)}
    <div class="line">
      <span class="soft">page</span>
      <Segments
        label="Page"
        options={[
          { value: 'upright', label: 'upright' },
          { value: 'across', label: 'across' },
        ]}
        value={plan.wide ? 'across' : 'upright'}
        onchange={(value) => onchange({ wide: value === 'across' })}
      />
    </div>
  {/if}
</div>

<style>
  .settings {
    display: grid;
    gap: 6px;
    align-content: start;
    font-size: 14px;
  }
  .line {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr);
    gap: 8px;
    align-items: center;
  }
  @media (pointer: coarse) {
    label.line {
      min-height: 44px;
    }
  }
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    min-width: 0;
  }
</style>
