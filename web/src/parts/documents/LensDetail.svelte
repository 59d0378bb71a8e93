<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { distanceWithUnit, mm } from '../../lib/format'
  import { circlesText, typedCircles } from '../../lib/lenses.svelte'
  import { trade } from '../../lib/trade.svelte'
  import { weightUnit } from '../../lib/weights'
  import type { LensDocument, LensFigures } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    lens: LensDocument
    /** Its path in the document. */
    at: string
    figures: LensFigures | undefined
    fault: (path: string) => string | undefined
    origin: (key: string, field: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onfigure: (key: string, field: string, label: string) => void
  }
  let { lens, at, figures, fault, origin, onset, onfigure }: Props = $props()

  const cell = (field: string, label: string) => ({
    label: `${label} of ${lens.name}`,
    fault: fault(`${at}.${field}`),
    origin: origin(lens.key ?? '', field),
    oninput: (value: unknown) => onset(`${at}.${field}`, value),
    onfocus: () => onfigure(lens.key ?? '', field, `${label} of ${lens.name}`),
  })

  const ALONG = [
    { value: null, label: 'one value' },
    { value: 'focal', label: 'changes along the zoom' },
    { value: 'stop', label: 'changes with the stop' },
    { value: 'focus', label: 'changes with focus' },
  ] as const
  /** Going over to a table begins with the one value at the place where the lens is weakest. */
  function setAlong(by: (typeof ALONG)[number]['value']) {
    const from = lens.image_circle_mm ?? lens.circles?.[0]?.circle_mm ?? 30
    if (by === null) onset(at, { ...lens, circle_by: null, circles: [], image_circle_mm: from })
    else {
      const place = by === 'focal' ? lens.focal_mm : by === 'stop' ? (lens.t_stop ?? lens.f_number) : null
      onset(at, { ...lens, circle_by: by, image_circle_mm: null, circles: [{ at: place, circle_mm: from }] })
    }
  }
  let typed = $state.raw<string | null>(null)
  const tableFault = $derived(
    fault(`${at}.circles`) ??
      [0, 1, 2, 3, 4, 5].flatMap((i) => {
        const wrong = fault(`${at}.circles[${i}].at`) ?? fault(`${at}.circles[${i}].circle_mm`)
        return wrong ? [`row ${i + 1} ${wrong}`] : []
      })[0],
  )
  const IRIS = [
    { value: 'ring', label: 'by a ring' },
    { value: 'body', label: 'from the body' },
    { value: 'either', label: 'either way' },
  ]
</script>

<section aria-label="More of {lens.name}">
  <div class="fields">
    <span class="item"
      ><span class="soft">Image circle</span>
      <Choice
        label="Circle of {lens.name} along"
        options={ALONG}
        value={lens.circle_by ?? null}
        onchange={setAlong}
      />
      {#if lens.circle_by}
        <input
          class="set figure wide"
          aria-label="Table of circles of {lens.name}"
          aria-invalid={tableFault !== undefined}
          title="{{ focal: 'mm', stop: 'stop', focus: 'm, or ∞' }[lens.circle_by]}: circle in mm; …"
          value={typed ?? circlesText(lens.circles ?? [])}
          oninput={(event) => {
            typed = event.currentTarget.value
            onset(`${at}.circles`, typedCircles(typed))
          }}
          onblur={() => (typed = null)}
        />
        <span class="soft">{{ focal: 'mm', stop: 'stop', focus: 'm' }[lens.circle_by]}: Ø mm</span>
      {:else}<span class="figure">{mm(lens.image_circle_mm)}</span> mm{/if}</span
    >
    {#if tableFault}<span class="fault" role="alert">{tableFault}</span>{/if}
    <span class="item"
      ><span class="soft">Breathing</span><EntryField
        {...cell('breathing_percent', 'Breathing')}
        kind="number"
        value={lens.breathing_percent}
        size={4}
        placeholder="?"
      />% <span class="soft">at close focus</span></span
    >
    <span class="item"
      ><span class="soft">Correction crops</span>×<EntryField
        {...cell('correction', 'Crop by the correction of distortion')}
        kind="number"
        value={lens.correction}
        size={5}
        placeholder="?"
      />{#if lens.focal_long_mm}<span class="soft">long end</span>×<EntryField
          {...cell('correction_long', 'Crop by the correction at the long end')}
          kind="number"
          value={lens.correction_long}
          size={5}
          placeholder="same"
        />{/if}</span
    >
    <span class="item"
      ><span class="soft">Pupil</span><EntryField
        {...cell('pupil_magnification', 'Pupil magnification')}
        kind="number"
        value={lens.pupil_magnification}
        size={4}
      />×</span
    >
    <span class="item"
      ><span class="soft">Iris</span>
      <Choice
        label="Iris of {lens.name}"
        options={IRIS}
        value={lens.iris}
        onchange={(iris) => onset(`${at}.iris`, iris)}
      /></span
    >
    <span class="item"
      ><span class="soft">Lens data</span><EntryField
        {...cell('data_link', 'Data link')}
        kind="text"
        value={lens.data_link}
        size={18}
        placeholder="none"
      /></span
    >
    <span class="item"
      ><span class="soft">Front Ø</span><EntryField
        {...cell('front_mm', 'Front diameter')}
        kind="number"
        value={lens.front_mm}
      />mm</span
    >
    <span class="item"
      ><span class="soft">Length</span><EntryField
        {...cell('length_mm', 'Length')}
        kind="number"
        value={lens.length_mm}
      />mm</span
    >
    <span class="item"
      ><span class="soft">Weight</span><EntryField
        {...cell('weight_kg', 'Weight')}
        kind="weight"
        unit={trade.unit}
        value={lens.weight_kg}
        size={5}
      />{weightUnit(trade.unit)}</span
    >
  </div>
  {#if figures}
    <ul class="told">
      {#if figures.transmission !== null}
        <li>
          T and f say that {Math.round(100 * figures.transmission)} % of the light comes through ({(-Math.log2(
            figures.transmission,
          )).toFixed(2)} stop lost).
        </li>
      {/if}
      {#if figures.close}
        <li>
          At close focus{lens.focal_long_mm ? ', long end' : ''}: {distanceWithUnit(
            figures.close.field_m,
            trade.unit,
          )} across 24.89 mm, 1:{(1 / figures.close.magnification).toFixed(1)}{lens.close_focus_m
            ? `, from ${distanceWithUnit(lens.close_focus_m, trade.unit)}`
            : ''}; extension alone would take {figures.close.extension_percent.toFixed(1)} % of the width{lens.breathing_percent ==
          null
            ? ''
            : `, this lens ${lens.breathing_percent < 0 ? 'gives' : 'takes'} ${Math.abs(lens.breathing_percent)} %`}.
        </li>
      {/if}
      {#each figures.notes as note (note)}<li class="warn">{note}</li>{/each}
    </ul>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 4px;
    align-content: start;
    font-size: 14px;
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.3rem;
  }
  .wide {
    width: 30ch;
    max-width: 100%;
    font-size: 13.5px;
  }
  input[aria-invalid='true'] {
    border-bottom: 2px solid var(--bad);
    color: var(--bad);
  }
</style>
