<script lang="ts">
  import { percent } from '../lib/format'
  import { newKey } from '../lib/rows'
  import type { BodyDocument, BodySheet } from '../lib/types'
  import ClaimLine from './ClaimLine.svelte'
  import GridCell from './GridCell.svelte'
  import TapeDrawing from './TapeDrawing.svelte'
  import { CLAIM_ASPECTS, CLAIM_BASES, decimalsOf } from './claims'

  interface Props {
    document: BodyDocument
    checked: BodySheet['claims'] | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
  }
  let { document, checked, fault, onset }: Props = $props()

  const claims = $derived(document.claims)
  const crops = $derived(claims.crops ?? [])
  const tapes = $derived(claims.tapes ?? [])
  const speeds = $derived(claims.speeds ?? [])
  const pixels = $derived(claims.pixels ?? [])
  const firstMode = $derived(document.modes[0]?.key)
  const formatsOf = (key: string) => document.modes.find((m) => m.key === key)?.formats ?? []
  const of = <T extends { key: string }>(list: T[] | undefined, key: string | undefined) =>
    list?.find((c) => c.key === key)
  const without = <T,>(list: readonly T[], at: number) => list.filter((_, i) => i !== at)

  const cell = (path: string, label: string) => ({
    label,
    fault: fault(`claims.${path}`),
    oninput: (value: unknown) => onset(`claims.${path}`, value),
  })
</script>

{#snippet modeChoice(path: string, value: string | null | undefined, optional = false)}
  <select
    class="set"
    aria-label="Scan mode"
    value={value ?? ''}
    onchange={(event) => onset(`claims.${path}`, event.currentTarget.value || null)}
  >
    {#if optional}<option value="">the whole sensor</option>{/if}
    {#each document.modes as mode (mode.key)}<option value={mode.key}>{mode.name}</option>{/each}
  </select>
{/snippet}
{#snippet note(path: string, value: string | undefined)}
  <GridCell {...cell(path, 'Who says so')} kind="text" {value} size={20} placeholder="who says so" />
{/snippet}

<div class="claims">
  <section aria-labelledby="claims-crops">
    <h3 id="claims-crops">Crop factors that are claimed</h3>
    <ul>
      {#each crops as claim, i (claim.key)}
        {@const told = of(checked?.crops, claim.key)}
        <ClaimLine
          verdict={told?.verdict}
          text={told?.text}
          ondelete={() => onset('claims.crops', without(crops, i))}
        >
          ×<GridCell
            {...cell(`crops[${i}].factor`, 'Claimed factor')}
            kind="number"
            value={claim.factor}
            oninput={(value) =>
              onset(`claims.crops[${i}]`, { ...claim, factor: value, decimals: decimalsOf(value) })}
          />
          <span class="soft">in</span>
          {@render modeChoice(`crops[${i}].mode`, claim.mode)}
          <select
            class="set"
            aria-label="Aspect for which it is claimed"
            value={claim.aspect?.join(':') ?? ''}
            onchange={(event) =>
              onset(
                `claims.crops[${i}].aspect`,
                CLAIM_ASPECTS.find((a) => a.label === event.currentTarget.value)?.aspect ?? null,
              )}
          >
            <option value="">aspect not said</option>
            {#each CLAIM_ASPECTS as { label } (label)}<option value={label}>{label}</option>{/each}
            {#if claim.aspect && !CLAIM_ASPECTS.some((a) => a.label === claim.aspect?.join(':'))}
              <option value={claim.aspect.join(':')}>{claim.aspect.join(':')}</option>
            {/if}
          </select>
          <select
            class="set"
            aria-label="What it is measured against"
            value={claim.basis ?? ''}
            onchange={(event) => onset(`claims.crops[${i}].basis`, event.currentTarget.value || null)}
          >
            <option value="">basis not said</option>
            {#each CLAIM_BASES as { value, label } (value)}<option {value}>{label}</option>{/each}
          </select>
          <select
            class="set"
            aria-label="Dimension by which it is measured"
            value={claim.by ?? ''}
            onchange={(event) => onset(`claims.crops[${i}].by`, event.currentTarget.value || null)}
          >
            <option value="">dimension not said</option>
            {#each ['width', 'height', 'diagonal'] as by (by)}<option value={by}>by {by}</option>{/each}
          </select>
          {#if document.crops.length}<label class="soft"
              ><input
                type="checkbox"
                checked={claim.switches ?? false}
                onchange={(event) => onset(`claims.crops[${i}].switches`, event.currentTarget.checked)}
              /> also with in-camera crops on</label
            >{/if}
          {@render note(`crops[${i}].note`, claim.note)}
          {#if told && told.readings.length > 1}
            <span class="readings soft"
              >{#each told.readings as r, n (n)}{n ? '; ' : 'Readings: '}{r.window}, by {r.by} against {r.basis}
                {r.factor.toFixed(3)}{/each}</span
            >
          {/if}
        </ClaimLine>
      {/each}
    </ul>
    <button
      class="knob"
      disabled={!firstMode}
      onclick={() =>
        onset('claims.crops', [
          ...crops,
          { key: newKey(), mode: firstMode, factor: 1.5, decimals: 1, aspect: null, note: '' },
        ])}>Add a crop factor</button
    >
  </section>

  <section aria-labelledby="claims-tapes">
    <h3 id="claims-tapes">Measured with a tape</h3>
    <p class="soft">At this focal length and distance (from the sensor plane) the frame was so wide.</p>
    <ul>
      {#each tapes as claim, i (claim.key)}
        {@const told = of(checked?.tapes, claim.key)}
        <ClaimLine
          verdict={told?.verdict}
          text={told?.text}
          ondelete={() => onset('claims.tapes', without(tapes, i))}
        >
          {@render modeChoice(`tapes[${i}].mode`, claim.mode)}
          <select
            class="set"
            aria-label="Recording format that was framed"
            value={claim.format ?? ''}
            onchange={(event) => onset(`claims.tapes[${i}].format`, event.currentTarget.value || null)}
          >
            <option value="">whole window</option>
            {#each formatsOf(claim.mode) as f (f.key)}<option value={f.key}>{f.name}</option>{/each}
          </select>
          <GridCell
            {...cell(`tapes[${i}].focal_mm`, 'Focal length, mm')}
            kind="number"
            value={claim.focal_mm}
            size={5}
          />±<GridCell
            {...cell(`tapes[${i}].focal_error_mm`, 'Uncertainty of the focal length, mm')}
            kind="number"
            value={claim.focal_error_mm}
            size={4}
          /> mm <span class="soft">at</span>
          <GridCell
            {...cell(`tapes[${i}].distance_m`, 'Distance, m')}
            kind="number"
            value={claim.distance_m}
            size={5}
          />±<GridCell
            {...cell(`tapes[${i}].distance_error_m`, 'Uncertainty of the distance, m')}
            kind="number"
            value={claim.distance_error_m}
            size={5}
          /> m: <GridCell
            {...cell(`tapes[${i}].field_m`, 'Field width, m')}
            kind="number"
            value={claim.field_m}
            size={6}
          />±<GridCell
            {...cell(`tapes[${i}].field_error_m`, 'Uncertainty of the field width, m')}
            kind="number"
            value={claim.field_error_m}
            size={5}
          /> m <span class="soft">wide</span>
          {@render note(`tapes[${i}].note`, claim.note)}
          {#if told?.implied_mm != null && told.error_mm != null}
            <TapeDrawing
              implied={told.implied_mm}
              error={told.error_mm}
              computed={told.computed_mm}
              claimed={told.claimed}
            />
          {/if}
        </ClaimLine>
      {/each}
    </ul>
    <button
      class="knob"
      disabled={!firstMode}
      onclick={() =>
        onset('claims.tapes', [
          ...tapes,
          {
            key: newKey(),
            mode: firstMode,
            format: null,
            focal_mm: 50,
            focal_error_mm: 0.5,
            distance_m: 3,
            distance_error_m: 0.01,
            field_m: 1.5,
            field_error_m: 0.005,
            note: '',
          },
        ])}>Add a measurement</button
    >
  </section>

  <section aria-labelledby="claims-speeds">
    <h3 id="claims-speeds">Rates that are stated</h3>
    {#if checked?.speed}<p class="fit {checked.speed.verdict}">{checked.speed.text}</p>{/if}
    <ul>
      {#each speeds as claim, i (claim.key)}
        {@const told = checked?.speed?.rows.find((row) => row.key === claim.key)}
        <ClaimLine
          verdict={undefined}
          text={undefined}
          ondelete={() => onset('claims.speeds', without(speeds, i))}
        >
          <GridCell {...cell(`speeds[${i}].rows`, 'Rows')} kind="number" value={claim.rows} />
          <span class="soft">rows at</span>
          <GridCell {...cell(`speeds[${i}].fps`, 'Stated rate')} kind="number" value={claim.fps} /> fps
          {#if told}<span class="figure residual" class:off={told.off}
              >line {told.fitted_fps.toFixed(1)}, {percent(100 * told.residual, 1)}{told.off
                ? ' ✗'
                : ' ✓'}</span
            >{/if}
          {@render note(`speeds[${i}].note`, claim.note)}
        </ClaimLine>
      {/each}
    </ul>
    <button
      class="knob"
      onclick={() =>
        onset('claims.speeds', [
          ...speeds,
          { key: newKey(), rows: document.photosites[1], fps: 30, note: '' },
        ])}>Add a stated rate</button
    >
  </section>

  <section aria-labelledby="claims-pixels">
    <h3 id="claims-pixels">Pixel counts</h3>
    <ul>
      {#each pixels as claim, i (claim.key)}
        {@const told = of(checked?.pixels, claim.key)}
        <ClaimLine
          verdict={told?.verdict}
          text={told?.text}
          ondelete={() => onset('claims.pixels', without(pixels, i))}
        >
          <GridCell
            {...cell(`pixels[${i}].megapixels`, 'Claimed megapixels')}
            kind="number"
            value={claim.megapixels}
            oninput={(value) =>
              onset(`claims.pixels[${i}]`, { ...claim, megapixels: value, decimals: decimalsOf(value) })}
          /> MP <span class="soft">in</span>
          {@render modeChoice(`pixels[${i}].mode`, claim.mode, true)}
          {@render note(`pixels[${i}].note`, claim.note)}
        </ClaimLine>
      {/each}
    </ul>
    <button
      class="knob"
      onclick={() =>
        onset('claims.pixels', [
          ...pixels,
          { key: newKey(), mode: null, megapixels: 24, decimals: 0, note: '' },
        ])}>Add a pixel count</button
    >
  </section>
</div>

<style>
  .claims {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 10px 28px;
    align-items: start;
  }
  h3 {
    font-weight: 500;
  }
  ul {
    margin-bottom: 5px;
  }
  .readings {
    flex-basis: 100%;
    font-size: 13px;
  }
  .residual {
    font-size: 13px;
    color: var(--ok);
  }
  .residual.off,
  .fit.fails {
    color: var(--bad);
  }
  .fit.holds {
    color: var(--ok);
  }
  .fit.coarse,
  .fit.unknown {
    color: var(--warn);
  }
  @media (max-width: 900px) {
    .claims {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
