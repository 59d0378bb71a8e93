<script lang="ts">
  import Down from '@lucide/svelte/icons/chevron-down'
  import Up from '@lucide/svelte/icons/chevron-up'
  import type { Snippet } from 'svelte'
  import type { LinkName } from './links'

  interface Props {
    name: LinkName
    title: string
    /** What the link does to the picture, written out. */
    effect: string
    /** Whether the effect is more than nothing. */
    acts: boolean
    summary: string
    open: boolean
    ontoggle: (name: LinkName) => void
    children: Snippet
  }
  let { name, title, effect, acts, summary, open, ontoggle, children }: Props = $props()
</script>

<li class="cell" class:open>
  <span class="head"
    ><span class="soft">{title}</span><span class="figure" class:accent={acts} class:soft={!acts}
      >{effect}</span
    ></span
  >
  <span class="main">{@render children()}</span>
  <button class="more" aria-expanded={open} aria-controls="link-tray" onclick={() => ontoggle(name)}>
    <span class="summary">{summary}</span>{#if open}<Up size={14} />{:else}<Down size={14} />{/if}
    <span class="sr-only">{open ? 'close' : 'set more of'} {title}</span>
  </button>
</li>

<style>
  .cell {
    grid-template-columns: minmax(0, 1fr);
    --tip: 13px;
    display: grid;
    align-content: space-between;
    min-width: 0;
    padding: 7px calc(var(--tip) + 9px) 4px calc(var(--tip) + 8px);
    background: var(--cell);
    clip-path: polygon(
      0 0,
      calc(100% - var(--tip)) 0,
      100% 50%,
      calc(100% - var(--tip)) 100%,
      0 100%,
      var(--tip) 50%
    );
  }
  /* The cell's edge is cut: what has the keyboard is framed inside. */
  .cell :global(:focus-visible) {
    outline-offset: -2px;
  }
  .cell.open {
    background: var(--cell-strong);
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 0.4rem;
    font-size: 13px;
    white-space: nowrap;
  }
  .main {
    display: block;
    min-width: 0;
    font-size: 17px;
    overflow: hidden;
  }
  .more {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.3rem;
    width: 100%;
    min-height: 22px;
    font-size: 13px;
    color: var(--ink-soft);
    cursor: pointer;
    text-align: left;
  }
  .more:hover {
    color: var(--ink);
  }
  .summary {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  @media (max-width: 900px) {
    .cell {
      --tip: 9px;
    }
  }
</style>
