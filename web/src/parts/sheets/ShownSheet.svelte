<script lang="ts">
  import { whenWords } from '../../lib/format'
  import { titleOf } from '../../lib/sheets'
  import { PAGES, type SheetPreview } from '../../lib/sheets.svelte'
  import type { SheetPlan } from '../../lib/types'
  import PaperPage from './PaperPage.svelte'
  import SheetReading from './SheetReading.svelte'

  interface Props {
    plan: SheetPlan
    preview: SheetPreview
    as: 'pages' | 'real' | 'reading'
    /** The state that the code of a paper carries which was scanned. */
    scanned: string | null
    /** How what was printed stands to what would be. */
    state: string
  }
  let { plan, preview, as, scanned, state }: Props = $props()

  const last = $derived(Math.min(preview.first + PAGES, preview.seen?.page_count ?? 0))
</script>

{#if scanned && preview.seen}
  <p class="no-print" role="status">
    {#if scanned === preview.seen.fingerprint}<span class="ok">✓ The paper you scanned is current.</span>
    {:else}<span class="warn"
        >≠ The paper you scanned is another state ({scanned.slice(0, 4)} …): the plan has changed since, or it was
        made for another paper or unit. Print it anew.</span
      >{/if}
  </p>
{/if}
{#if plan.made}<p class="soft no-print">
    Printed last {whenWords(plan.made.at)}; {state.replace(/^\S+ /, '')}.
  </p>{/if}
{#if preview.seen}
  {#if preview.seen.sheet.why_empty}
    <p class={preview.seen.working ? 'soft' : 'warn'}>{preview.seen.sheet.why_empty}</p>
  {:else}
    {#if preview.seen.unknown_signs}<p class="warn no-print">
        No font of the sheets has {preview.seen.unknown_signs}: an empty box is printed for each.
      </p>{/if}
    {#if as !== 'reading'}
      {#if preview.seen.page_count > PAGES}
        <div class="turn no-print">
          <button
            class="knob small"
            aria-label="Pages before"
            disabled={preview.first === 0}
            onclick={() => preview.turn(Math.max(0, preview.first - PAGES))}>‹</button
          >
          <span>pages {preview.first + 1}–{last} of {preview.seen.page_count}</span>
          <button
            class="knob small"
            aria-label="Further pages"
            disabled={last >= preview.seen.page_count}
            onclick={() => preview.turn(preview.first + PAGES)}>›</button
          >
        </div>
      {/if}
      <!-- A region that scrolls takes the keys of whoever looks at it. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        class="pages no-print"
        class:stale={preview.busy}
        class:real={as === 'real'}
        role="group"
        aria-label="Pages"
        tabindex="0"
      >
        {#each preview.seen.pages as page, i (i)}
          <PaperPage
            {page}
            real={as === 'real'}
            told="Page {preview.seen.first + i + 1} of {preview.seen.page_count}: {titleOf(
              plan,
            )}. The same stands under To read."
          />
        {/each}
      </div>
      <div class="print-only">
        <SheetReading sheet={preview.seen.sheet} state={preview.seen.fingerprint} />
      </div>
    {:else}
      <SheetReading sheet={preview.seen.sheet} state={preview.seen.fingerprint} />
    {/if}
  {/if}
{:else}<p class="soft">…</p>{/if}

<style>
  .turn {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .pages {
    display: grid;
    gap: 14px;
    justify-items: center;
  }
  .real {
    justify-items: start;
    overflow-x: auto;
  }
  .stale {
    opacity: 0.6;
  }
</style>
