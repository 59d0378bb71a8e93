<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { ClaimVerdict } from '../../lib/types'
  import { CLAIM_VERDICTS } from './claims'

  interface Props {
    verdict: ClaimVerdict | undefined
    text: string | undefined
    ondelete: () => void
    children: Snippet
  }
  let { verdict, text, ondelete, children }: Props = $props()
</script>

<li>
  <span class="entry">{@render children()}</span>
  <button class="knob" aria-label="Delete this claim" onclick={ondelete}>×</button>
  {#if verdict}<p class={CLAIM_VERDICTS[verdict].look}>
      <strong>{CLAIM_VERDICTS[verdict].words}</strong> <span>{text}</span>
    </p>{/if}
</li>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 0.6rem;
    align-items: center;
    padding: 3px 0;
    border-bottom: 1px solid var(--line);
  }
  .entry {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.1rem 0.6rem;
  }
  p {
    grid-column: 1 / -1;
    font-size: 14px;
  }
  strong {
    font-weight: 500;
    margin-right: 0.4rem;
  }
  p span {
    color: var(--ink);
  }
</style>
