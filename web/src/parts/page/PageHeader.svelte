<script lang="ts">
  import Redo from '@lucide/svelte/icons/redo-2'
  import Undo from '@lucide/svelte/icons/undo-2'
  import type { Snippet } from 'svelte'
  import { MODES, modeSwitch } from '../../lib/mode.svelte'
  import { recent } from '../../lib/recent.svelte'
  import { pathTo, router } from '../../lib/router.svelte'
  import { keepers, SAVING_WORDS } from '../../lib/saving.svelte'
  import { VIEWS, type ViewName } from '../../lib/views'
  import Choice from '../controls/Choice.svelte'

  interface Props {
    /** None where productions themselves are shown. */
    productionId: number | null
    productionName: string
    current: ViewName | null
    /** How many steps can be undone and done again. */
    steps: { back: number; forth: number } | null
    onundo: () => void
    onredo: () => void
    onhelp: () => void
    onask: () => void
    /** Switches of the view. */
    children?: Snippet
  }
  let { productionId, productionName, current, steps, onundo, onredo, onhelp, onask, children }: Props =
    $props()

  /** Stands for the list of all of them. */
  const ALL = 0
  const others = $derived(recent.list.filter((visit) => visit.id !== productionId))
  const switches = $derived([
    ...(productionId === null ? [] : [{ value: productionId, label: productionName }]),
    ...others.map(({ id, name }) => ({ value: id, label: name })),
    { value: ALL, label: 'All productions…' },
  ])
  $effect(() => {
    if (productionId !== null && current) recent.visit(productionId, productionName)
  })
</script>

<header>
  <a class="brand" href="/" aria-label="Hextan"
    ><img src="/mark.svg" alt="" width="20" height="20" /><span>Hextan</span></a
  >
  {#if productionId !== null}
    <Choice
      label="Production"
      options={switches}
      value={productionId}
      onchange={(id) => router.go(id === ALL ? '/' : pathTo(id, current ?? 'bench'))}
    />
    <nav aria-label="Views">
      {#each VIEWS as { name: view, title } (view)}
        <a
          data-view={view}
          href={pathTo(productionId, view)}
          aria-current={view === current ? 'page' : undefined}>{title}</a
        >
      {/each}
    </nav>
  {/if}
  <span class="slot">{@render children?.()}</span>
  <span class="tools">
    {#if keepers.state === 'refused'}<span class="soft kept">{SAVING_WORDS.refused}</span>
    {:else if keepers.state}<span class="kept" role="status"
        ><span class={keepers.state === 'waits' ? 'warn' : 'soft'}>{SAVING_WORDS[keepers.state]}</span></span
      >{/if}
    {#if steps}
      <button class="knob" disabled={!steps.back} onclick={onundo} aria-label="Undo" title="Undo (Ctrl Z)"
        ><Undo size={16} /></button
      >
      <button
        class="knob"
        disabled={!steps.forth}
        onclick={onredo}
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"><Redo size={16} /></button
      >
    {/if}
    <Choice
      label="Night or day"
      options={MODES}
      value={modeSwitch.mode}
      onchange={(mode) => modeSwitch.set(mode)}
    />
    <button class="knob" onclick={onask} title="Ask in one line (/)">Ask</button>
    <button class="knob" onclick={onhelp} aria-label="Keys and help" title="Keys (?)">?</button>
  </span>
</header>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1.1rem;
    padding: 5px 16px;
    border-bottom: 1px solid var(--line);
  }
  .brand {
    display: inline-flex;
    align-items: center;
    gap: 0.45rem;
    font-size: 18px;
    font-weight: 500;
  }
  nav {
    display: inline-flex;
    gap: 0.9rem;
  }
  nav a {
    padding-block: 2px;
    border-block: 2px solid transparent;
  }
  nav a:hover {
    border-bottom-color: var(--line-strong);
  }
  nav a[aria-current] {
    border-bottom-color: var(--accent);
  }
  .slot {
    margin-left: auto;
  }
  .kept {
    align-self: center;
    margin-right: 0.5rem;
    font-size: 13px;
  }
  .tools {
    display: inline-flex;
    gap: 0.25rem;
  }
  @media (max-width: 1000px) {
    .slot {
      order: 1;
      width: 100%;
    }
    .slot:empty {
      display: none;
    }
    .tools {
      margin-left: auto;
    }
  }
  @media (max-width: 560px) {
    header {
      gap: 0.2rem 0.7rem;
      padding-inline: 8px;
    }
    /* Where one stands with a telephone in the hand. */
    nav {
      order: 1;
      width: 100%;
      justify-content: space-between;
      gap: 0.5rem;
    }
    nav [data-view='set'] {
      order: -3;
    }
    nav [data-view='shots'] {
      order: -2;
    }
    nav [data-view='bench'] {
      order: -1;
    }
    .brand span {
      display: none;
    }
  }
</style>
