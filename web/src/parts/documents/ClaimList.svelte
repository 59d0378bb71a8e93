<script
  lang="ts"
  generics="C extends { key?: string; note?: string | null }, T extends { key: string; verdict?: ClaimVerdict; text?: string }"
>
  import type { Snippet } from 'svelte'
  import { newKey } from '../../lib/rows'
  import type { ClaimVerdict } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'
  import ClaimLine from './ClaimLine.svelte'
  import { answerTo, claimCell, withoutAt, type ClaimProps } from './claims'

  interface Props extends Omit<ClaimProps, 'document' | 'checked'> {
    /** Its field of the claims. */
    field: 'crops' | 'tapes' | 'speeds' | 'pixels'
    heading: string
    claims: readonly C[]
    /** What the server found of each. */
    answers: readonly T[] | undefined
    /** A new one, and what its button says; none when it can't be added yet. */
    fresh: Record<string, unknown> | null
    add: string
    about?: Snippet
    /** Everything of a claim but who says so. */
    entry: Snippet<[C, number]>
    after?: Snippet<[T]>
  }
  let { field, heading, claims, answers, fresh, add, about, entry, after, fault, onset }: Props = $props()
  const cell = $derived(claimCell(fault, onset))
</script>

<section aria-labelledby="claims-{field}">
  <h2 id="claims-{field}">{heading}</h2>
  {@render about?.()}
  <ul>
    {#each claims as claim, i (claim.key)}
      {@const told = answerTo(answers, claim.key)}
      <ClaimLine
        verdict={told?.verdict}
        text={told?.text}
        ondelete={() => onset(`claims.${field}`, withoutAt(claims, i))}
      >
        {@render entry(claim, i)}
        <EntryField
          {...cell(`${field}[${i}].note`, 'Who says so')}
          kind="text"
          value={claim.note}
          size={20}
          placeholder="who says so"
        />
        {#if told}{@render after?.(told)}{/if}
      </ClaimLine>
    {/each}
  </ul>
  <button
    class="knob"
    disabled={!fresh}
    onclick={() => fresh && onset(`claims.${field}`, [...claims, { key: newKey(), ...fresh }])}>{add}</button
  >
</section>

<style>
  ul {
    margin-bottom: 5px;
  }
</style>
