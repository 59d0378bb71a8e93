<script lang="ts">
  import { newKey } from '../../lib/rows'
  import type { BodyDocument, BodySheet } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimLine from './ClaimLine.svelte'
  import ClaimMode from './ClaimMode.svelte'
  import { answerTo, CLAIM_ASPECTS, CLAIM_BASES, claimCell, decimalsOf, withoutAt } from './claims'

  interface Props {
    document: BodyDocument
    checked: BodySheet['claims'] | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
  }
  let { document, checked, fault, onset }: Props = $props()

  const cell = $derived(claimCell(fault, onset))
  const firstMode = $derived(document.modes[0]?.key)
  const crops = $derived(document.claims.crops ?? [])
</script>

<section aria-labelledby="claims-crops">
  <h3 id="claims-crops">Crop factors that are claimed</h3>
  <ul>
    {#each crops as claim, i (claim.key)}
      {@const told = answerTo(checked?.crops, claim.key)}
      <ClaimLine
        verdict={told?.verdict}
        text={told?.text}
        ondelete={() => onset('claims.crops', withoutAt(crops, i))}
      >
        ×<EntryField
          {...cell(`crops[${i}].factor`, 'Claimed factor')}
          kind="number"
          value={claim.factor}
          oninput={(value) =>
            onset(`claims.crops[${i}]`, { ...claim, factor: value, decimals: decimalsOf(value) })}
        />
        <span class="soft">in</span>
        <ClaimMode
          {document}
          value={claim.mode}
          onchange={(mode) => onset(`claims.crops[${i}].mode`, mode)}
        />
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
        <EntryField
          {...cell(`crops[${i}].note`, 'Who says so')}
          kind="text"
          value={claim.note}
          size={20}
          placeholder="who says so"
        />
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

<style>
  ul {
    margin-bottom: 5px;
  }
  .readings {
    flex-basis: 100%;
    font-size: 13px;
  }
</style>
