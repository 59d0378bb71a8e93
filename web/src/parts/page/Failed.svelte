<script lang="ts">
  import type { Snippet } from 'svelte'
  import { whenBack } from '../../lib/reconnect'
  import type { Problem } from '../../lib/types'

  interface Props {
    problem: Problem
    onretry: () => void
    /** Where else to go. */
    children?: Snippet
  }
  let { problem, onretry, children }: Props = $props()
  $effect(() => (problem.code === 'no_answer' ? whenBack(onretry) : undefined))
</script>

<div class="failed" role="alert">
  <p class="fault">{problem.message}</p>
  <button class="knob" onclick={onretry}>Try again</button>
  {@render children?.()}
</div>

<style>
  .failed {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1rem;
    padding: 2rem;
  }
</style>
