<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { ClaimVerdict } from '../../lib/types'

  interface Props {
    verdict: ClaimVerdict | undefined
    text: string | undefined
    ondelete: () => void
    children: Snippet
  }
  let { verdict, text, ondelete, children }: Props = $props()
  const WORDS: Record<ClaimVerdict, string> = {
    holds: '✓ holds',
    near: '≈ nearly',
    basis: '≈ by another basis only',
    elsewhere: '✗ another body',
    fails: '✗ does not hold',
    coarse: '? too coarse',
    unknown: '? not known',
  }
</script>

<li>
  <span class="entry">{@render children()}</span>
  <button class="knob" aria-label="Delete this claim" onclick={ondelete}>×</button>
  {#if verdict}<p class={verdict}><strong>{WORDS[verdict]}</strong> <span>{text}</span></p>{/if}
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
  .holds {
    color: var(--ok);
  }
  .near,
  .basis,
  .coarse,
  .unknown {
    color: var(--warn);
  }
  .elsewhere,
  .fails {
    color: var(--bad);
  }
</style>
