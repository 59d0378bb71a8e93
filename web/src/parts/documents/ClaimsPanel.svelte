<script lang="ts">
  import { percent } from '../../lib/format'
  import ClaimList from './ClaimList.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import CropClaims from './CropClaims.svelte'
  import TapeClaims from './TapeClaims.svelte'
  import { CLAIM_LISTS, CLAIM_VERDICTS, claimCell, decimalsOf, type ClaimProps } from './claims'

  let { document, checked, fault, onset }: ClaimProps = $props()

  const speeds = $derived(document.claims.speeds ?? [])
  const pixels = $derived(document.claims.pixels ?? [])
  const cell = $derived(claimCell(fault, onset))
</script>

<div class="claims">
  <CropClaims {document} {checked} {fault} {onset} />
  <TapeClaims {document} {checked} {fault} {onset} />
  <ClaimList
    {...CLAIM_LISTS.speeds}
    claims={speeds}
    answers={checked?.speed?.rows}
    fresh={{ rows: document.photosites[1], fps: 30, note: '' }}
    {fault}
    {onset}
  >
    {#snippet about()}
      {#if checked?.speed}<p class={CLAIM_VERDICTS[checked.speed.verdict].look}>{checked.speed.text}</p>{/if}
    {/snippet}
    {#snippet entry(claim, i)}
      <EntryField {...cell(`speeds[${i}].rows`, 'Rows')} kind="number" value={claim.rows} />
      <span class="soft">rows at</span>
      <EntryField {...cell(`speeds[${i}].fps`, 'Stated rate')} kind="number" value={claim.fps} /> fps
    {/snippet}
    {#snippet after(told)}
      <span class="figure residual" class:bad={told.off} class:ok={!told.off}
        >line {told.fitted_fps.toFixed(1)}, {percent(100 * told.residual, 1)}{told.off ? ' ✗' : ' ✓'}</span
      >
    {/snippet}
  </ClaimList>

  <ClaimList
    {...CLAIM_LISTS.pixels}
    claims={pixels}
    answers={checked?.pixels}
    fresh={{ mode: null, megapixels: 24, decimals: 0, note: '' }}
    {fault}
    {onset}
  >
    {#snippet entry(claim, i)}
      <EntryField
        {...cell(`pixels[${i}].megapixels`, 'Claimed megapixels')}
        kind="number"
        value={claim.megapixels}
        oninput={(value) =>
          onset(`claims.pixels[${i}]`, { ...claim, megapixels: value, decimals: decimalsOf(value) })}
      /> MP <span class="soft">in</span>
      <ClaimMode
        {document}
        value={claim.mode}
        optional
        onchange={(mode) => onset(`claims.pixels[${i}].mode`, mode)}
      />
    {/snippet}
  </ClaimList>
</div>

<style>
  .claims {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 10px 28px;
    align-items: start;
  }
  .residual {
    font-size: 13px;
  }
  @media (max-width: 900px) {
    .claims {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
