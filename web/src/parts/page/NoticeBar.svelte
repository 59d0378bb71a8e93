<script lang="ts">
  import { line } from '../../lib/line.svelte'
  import { valueWords, type Difference } from '../../lib/merging'
  import { router } from '../../lib/router.svelte'
  import type { Problem } from '../../lib/types'
  import Begin from './Begin.svelte'

  interface Props {
    /** What somebody else may have changed. */
    what: string
    problem: Problem | null
    /** Where another window kept something else in between. */
    differences?: Difference[] | null
    /** Whether all else of both is put together; a set-up is one thing. */
    together?: boolean
    onresolve: (take: 'theirs' | 'mine') => void
    onundo: (() => void) | null
    /** Asks again. */
    onretry?: (() => void) | null
  }
  let {
    what,
    problem,
    differences = null,
    together = true,
    onresolve,
    onundo,
    onretry = null,
  }: Props = $props()
  /** So many places are listed. */
  const MOST = 12
</script>

{#if differences}
  <div class="notice" role="alert">
    <span
      >{#if together}This {what} was changed here and in another window at the same {differences.length === 1
          ? 'place'
          : 'places'}. Everything else of both is kept; only this is to be decided:{:else}This {what} was changed
        in another window. Whichever you take, the other is one step of undo away:{/if}</span
    >
    <table>
      <thead><tr><th></th><th scope="col">here</th><th scope="col">in the other window</th></tr></thead>
      <tbody>
        {#each differences.slice(0, MOST) as each, i (i)}
          <tr
            ><th scope="row">{each.where}</th><td>{valueWords(each.mine)}</td><td
              >{valueWords(each.theirs)}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#if differences.length > MOST}<span class="soft">and {differences.length - MOST} more.</span>{/if}
    <span class="ways"
      ><button class="knob" onclick={() => onresolve('mine')}>As it is here</button>
      <button class="knob" onclick={() => onresolve('theirs')}>As in the other window</button></span
    >
  </div>
{/if}
{#if problem?.code === 'nothing_yet' && router.place.productionId !== null}
  <div role="alert"><Begin productionId={router.place.productionId} what="This" /></div>
{:else if problem}
  <div class="notice" role="alert">
    <span
      >{problem.code === 'no_answer' && !line.away
        ? 'The server is back. What was done last did not reach it: do it once more.'
        : problem.message}</span
    >
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
  table :is(th, td) {
    padding: 0 1.2rem 0 0;
    text-align: left;
    font-weight: 400;
  }
  thead th {
    color: var(--ink-soft);
    font-size: 13px;
  }
  .ways {
    display: flex;
    gap: 0.5rem;
  }
</style>
