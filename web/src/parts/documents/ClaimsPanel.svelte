<script lang="ts">
  import { percent } from '../../lib/format'
  import { newKey } from '../../lib/rows'
  import type { BodyDocument, BodySheet } from '../../lib/types'
  import ClaimLine from './ClaimLine.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import CropClaims from './CropClaims.svelte'
  import TapeClaims from './TapeClaims.svelte'
  import { answerTo, claimCell, decimalsOf, withoutAt } from './claims'

  interface Props {
    document: BodyDocument
    checked: BodySheet['claims'] | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
  }
  let { document, checked, fault, onset }: Props = $props()

  const speeds = $derived(document.claims.speeds ?? [])
  const pixels = $derived(document.claims.pixels ?? [])
  const cell = $derived(claimCell(fault, onset))
</script>

<div class="claims">
  <CropClaims {document} {checked} {fault} {onset} />
  <TapeClaims {document} {checked} {fault} {onset} />
  <section aria-labelledby="claims-speeds">
    <h3 id="claims-speeds">Rates that are stated</h3>
    {#if checked?.speed}<p class="fit {checked.speed.verdict}">{checked.speed.text}</p>{/if}
    <ul>
      {#each speeds as claim, i (claim.key)}
        {@const told = checked?.speed?.rows.find((row) => row.key === claim.key)}
        <ClaimLine
          verdict={undefined}
          text={undefined}
          ondelete={() => onset('claims.speeds', withoutAt(speeds, i))}
        >
          <EntryField {...cell(`speeds[${i}].rows`, 'Rows')} kind="number" value={claim.rows} />
          <span class="soft">rows at</span>
          <EntryField {...cell(`speeds[${i}].fps`, 'Stated rate')} kind="number" value={claim.fps} /> fps
          {#if told}<span class="figure residual" class:off={told.off}
              >line {told.fitted_fps.toFixed(1)}, {percent(100 * told.residual, 1)}{told.off
                ? ' ✗'
                : ' ✓'}</span
            >{/if}
          <EntryField
            {...cell(`speeds[${i}].note`, 'Who says so')}
            kind="text"
            value={claim.note}
            size={20}
            placeholder="who says so"
          />
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
        {@const told = answerTo(checked?.pixels, claim.key)}
        <ClaimLine
          verdict={told?.verdict}
          text={told?.text}
          ondelete={() => onset('claims.pixels', withoutAt(pixels, i))}
        >
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
          <EntryField
            {...cell(`pixels[${i}].note`, 'Who says so')}
            kind="text"
            value={claim.note}
            size={20}
            placeholder="who says so"
          />
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
  ul {
    margin-bottom: 5px;
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
