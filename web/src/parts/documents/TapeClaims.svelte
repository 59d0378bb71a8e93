<script lang="ts">
  import { newKey } from '../../lib/rows'
  import type { BodyDocument, BodySheet } from '../../lib/types'
  import TapeDrawing from '../drawings/TapeDrawing.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimLine from './ClaimLine.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import { answerTo, claimCell, withoutAt } from './claims'

  interface Props {
    document: BodyDocument
    checked: BodySheet['claims'] | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
  }
  let { document, checked, fault, onset }: Props = $props()

  const cell = $derived(claimCell(fault, onset))
  const firstMode = $derived(document.modes[0]?.key)
  const tapes = $derived(document.claims.tapes ?? [])
  const formatsOf = (key: string) => document.modes.find((m) => m.key === key)?.formats ?? []
</script>

<section aria-labelledby="claims-tapes">
  <h3 id="claims-tapes">Measured with a tape</h3>
  <p class="soft">At this focal length and distance (from the sensor plane) the frame was so wide.</p>
  <ul>
    {#each tapes as claim, i (claim.key)}
      {@const told = answerTo(checked?.tapes, claim.key)}
      <ClaimLine
        verdict={told?.verdict}
        text={told?.text}
        ondelete={() => onset('claims.tapes', withoutAt(tapes, i))}
      >
        <ClaimMode
          {document}
          value={claim.mode}
          onchange={(mode) => onset(`claims.tapes[${i}].mode`, mode)}
        />
        <select
          class="set"
          aria-label="Recording format that was framed"
          value={claim.format ?? ''}
          onchange={(event) => onset(`claims.tapes[${i}].format`, event.currentTarget.value || null)}
        >
          <option value="">whole window</option>
          {#each formatsOf(claim.mode) as f (f.key)}<option value={f.key}>{f.name}</option>{/each}
        </select>
        <EntryField
          {...cell(`tapes[${i}].focal_mm`, 'Focal length, mm')}
          kind="number"
          value={claim.focal_mm}
          size={5}
        />±<EntryField
          {...cell(`tapes[${i}].focal_error_mm`, 'Uncertainty of the focal length, mm')}
          kind="number"
          value={claim.focal_error_mm}
          size={4}
        /> mm <span class="soft">at</span>
        <EntryField
          {...cell(`tapes[${i}].distance_m`, 'Distance, m')}
          kind="number"
          value={claim.distance_m}
          size={5}
        />±<EntryField
          {...cell(`tapes[${i}].distance_error_m`, 'Uncertainty of the distance, m')}
          kind="number"
          value={claim.distance_error_m}
          size={5}
        /> m: <EntryField
          {...cell(`tapes[${i}].field_m`, 'Field width, m')}
          kind="number"
          value={claim.field_m}
          size={6}
        />±<EntryField
          {...cell(`tapes[${i}].field_error_m`, 'Uncertainty of the field width, m')}
          kind="number"
          value={claim.field_error_m}
          size={5}
        /> m <span class="soft">wide</span>
        <EntryField
          {...cell(`tapes[${i}].note`, 'Who says so')}
          kind="text"
          value={claim.note}
          size={20}
          placeholder="who says so"
        />
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

<style>
  ul {
    margin-bottom: 5px;
  }
</style>
