<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { withChosen, wordOptions } from '../../lib/options'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimList from './ClaimList.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import { CLAIM_LISTS, CLAIM_ASPECTS, CLAIM_BASES, claimCell, decimalsOf, type ClaimProps } from './claims'

  let { document, checked, fault, onset }: ClaimProps = $props()

  const cell = $derived(claimCell(fault, onset))
  const firstMode = $derived(document.modes[0]?.key)
  const DIMENSIONS = [
    { value: null, label: 'dimension not said' },
    ...wordOptions(['width', 'height', 'diagonal'], (by) => `by ${by}`),
  ]
  const aspectsOf = (claimed: readonly number[] | null | undefined) => {
    const known = [
      { value: null, label: 'aspect not said' },
      ...wordOptions(CLAIM_ASPECTS.map((a) => a.label)),
    ]
    return claimed ? withChosen<string | null>(known, claimed.join(':'), claimed.join(':')) : known
  }
  const crops = $derived(document.claims.crops ?? [])
</script>

<ClaimList
  {...CLAIM_LISTS.crops}
  claims={crops}
  answers={checked?.crops}
  fresh={firstMode ? { mode: firstMode, factor: 1.5, decimals: 1, aspect: null, note: '' } : null}
  {fault}
  {onset}
>
  {#snippet entry(claim, i)}
    ×<EntryField
      {...cell(`crops[${i}].factor`, 'Claimed factor')}
      kind="number"
      value={claim.factor}
      oninput={(value) =>
        onset(`claims.crops[${i}]`, { ...claim, factor: value, decimals: decimalsOf(value) })}
    />
    <span class="soft">in</span>
    <ClaimMode {document} value={claim.mode} onchange={(mode) => onset(`claims.crops[${i}].mode`, mode)} />
    <Choice
      label="Aspect for which it is claimed"
      options={aspectsOf(claim.aspect)}
      value={claim.aspect?.join(':') ?? null}
      onchange={(aspect) =>
        onset(`claims.crops[${i}].aspect`, CLAIM_ASPECTS.find((a) => a.label === aspect)?.aspect ?? null)}
    />
    <Choice
      label="What it is measured against"
      options={[{ value: '', label: 'basis not said' }, ...CLAIM_BASES]}
      value={claim.basis ?? ''}
      onchange={(basis) => onset(`claims.crops[${i}].basis`, basis || null)}
    />
    <Choice
      label="Dimension by which it is measured"
      options={DIMENSIONS}
      value={claim.by ?? null}
      onchange={(by) => onset(`claims.crops[${i}].by`, by)}
    />
    {#if document.crops.length}<label class="soft"
        ><input
          type="checkbox"
          checked={claim.switches ?? false}
          onchange={(event) => onset(`claims.crops[${i}].switches`, event.currentTarget.checked)}
        /> also with in-camera crops on</label
      >{/if}
  {/snippet}
  {#snippet after(told)}
    {#if told.readings.length > 1}
      <span class="readings soft"
        >{#each told.readings as r, n (n)}{n ? '; ' : 'Readings: '}{r.window}, by {r.by} against {r.basis}
          {r.factor.toFixed(3)}{/each}</span
      >
    {/if}
  {/snippet}
</ClaimList>

<style>
  .readings {
    flex-basis: 100%;
    font-size: 13px;
  }
</style>
