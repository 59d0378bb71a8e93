<script lang="ts">
  import { router } from '../../lib/router.svelte'
  import type { Problem } from '../../lib/types'
  import Begin from './Begin.svelte'

  interface Props {
    /** What somebody else may have changed. */
    what: string
    problem: Problem | null
    /** Somebody else kept another one in between. */
    conflict: boolean
    onresolve: (take: 'theirs' | 'mine') => void
    onundo: (() => void) | null
    /** Asks again. */
    onretry?: (() => void) | null
  }
  let { what, problem, conflict, onresolve, onundo, onretry = null }: Props = $props()
</script>

{#if conflict}
  <div class="notice" role="alert">
    <span>This {what} was changed in another window in the meantime. Both are still there.</span>
    <button class="knob" onclick={() => onresolve('theirs')}>Take the other</button>
    <button class="knob" onclick={() => onresolve('mine')}>Keep this one</button>
  </div>
{/if}
{#if problem?.code === 'nothing_yet' && router.place.productionId !== null}
  <div role="alert"><Begin productionId={router.place.productionId} what="This" /></div>
{:else if problem}
  <div class="notice" role="alert">
    <span>{problem.message}</span>
    {#if onretry}<button class="knob" onclick={onretry}>Try again</button>{/if}
    {#if onundo}<button class="knob" onclick={onundo}>Undo the last change</button>{/if}
  </div>
{/if}

<style>
  .notice {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1rem;
    padding: 0.4rem 0.9rem;
    border: 1px solid var(--bad);
    border-left-width: 5px;
    background: var(--panel);
  }
</style>
