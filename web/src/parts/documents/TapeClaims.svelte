<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import TapeDrawing from '../drawings/TapeDrawing.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimList from './ClaimList.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import { CLAIM_LISTS, claimCell, type ClaimProps } from './claims'

  let { document, checked, fault, onset }: ClaimProps = $props()

  const cell = $derived(claimCell(fault, onset))
  const firstMode = $derived(document.modes[0]?.key)
  const FRESH = {
    format: null,
    focal_mm: 50,
    focal_error_mm: 0.5,
    distance_m: 3,
    distance_error_m: 0.01,
    field_m: 1.5,
    field_error_m: 0.005,
    note: '',
  }
  const tapes = $derived(document.claims.tapes ?? [])
  const formatsOf = (key: string) => document.modes.find((m) => m.key === key)?.formats ?? []
</script>

<ClaimList
  {...CLAIM_LISTS.tapes}
  claims={tapes}
  answers={checked?.tapes}
  fresh={firstMode ? { mode: firstMode, ...FRESH } : null}
  {fault}
  {onset}
>
  {#snippet about()}
    <p class="soft">At this focal length and distance (from the sensor plane) the frame was so wide.</p>
  {/snippet}
  {#snippet entry(claim, i)}
    <ClaimMode {document} value={claim.mode} onchange={(mode) => onset(`claims.tapes[${i}].mode`, mode)} />
    <Choice
      label="Recording format that was framed"
      options={[
        { value: null, label: 'whole window' },
        ...formatsOf(claim.mode).map((f) => ({ value: f.key, label: f.name })),
      ]}
      value={claim.format ?? null}
      onchange={(format) => onset(`claims.tapes[${i}].format`, format)}
    />
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
  {/snippet}
  {#snippet after(told)}
    {#if told.implied_mm != null && told.error_mm != null}
      <TapeDrawing
        implied={told.implied_mm}
        error={told.error_mm}
        computed={told.computed_mm}
        claimed={told.claimed}
      />
    {/if}
  {/snippet}
</ClaimList>
