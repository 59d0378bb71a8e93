<script lang="ts">
  import { untrack, type Snippet } from 'svelte'
  import { announcer } from '../../lib/announcer.svelte'
  import { keySettings } from '../../lib/keys.svelte'
  import type { Difference } from '../../lib/merging'
  import { late } from '../../lib/late.svelte'
  import { modeSwitch } from '../../lib/mode.svelte'
  import { newVersion } from '../../lib/offline.svelte'
  import { whenBack } from '../../lib/reconnect'
  import { pathTo, router } from '../../lib/router.svelte'
  import type { SheetKind } from '../../lib/sheets'
  import { runShortcut, type Shortcut } from '../../lib/shortcuts'
  import type { Problem } from '../../lib/types'
  import type { Undoable, ViewName } from '../../lib/views'
  import NoticeBar from './NoticeBar.svelte'
  import PageHeader from './PageHeader.svelte'

  interface Props {
    /** None where productions themselves are shown. */
    productionId?: number | null
    productionName?: string
    current?: ViewName | null
    /** What is shown: the heading, and the title of the window. */
    heading: string
    undo?: Undoable | null
    keys?: Shortcut[]
    /** Keys that a part of the view answers to by itself. */
    more?: { keys: string; does: string }[]
    /** What somebody else may have changed. */
    what?: string
    problem?: Problem | null
    differences?: Difference[] | null
    together?: boolean
    onresolve?: (take: 'theirs' | 'mine') => void
    /** Takes back the change that made the problem. */
    onundo?: (() => void) | null
    /** Asks again, by hand or when the server is back. */
    onretry?: () => void
    /** What a printed page goes by: the rule for sharp. */
    rule?: string
    /** The kind of sheet that says the same on paper, and of which kit or comparison. */
    sheet?: { kind: SheetKind; which?: string } | null
    /** Whether nothing can be shown yet. */
    waiting?: boolean
    switches?: Snippet
    children: Snippet
  }
  let {
    productionId = null, productionName = '', current = null, heading, undo = null, keys = [], more = [], what = '', problem = null, differences = null, together,
    onresolve = () => {}, onundo = null, onretry, rule = '', sheet = null, waiting = false, switches, children,
  }: Props = $props() // prettier-ignore

  let help = $state(false)
  /** Whether help was ever asked for: until then it is not loaded. */
  let asked = $state(false)
  function showHelp() {
    asked = true
    help = true
  }
  let asking = $state(false)
  /** Whether anything was asked: until then its part is not loaded. */
  let everAsked = $state(false)
  function showAsk() {
    everAsked = true
    asking = true
  }
  let top = $state<HTMLElement>()

  const shortcuts = $derived<Shortcut[]>([
    { keys: '?', on: ['?'], does: 'These keys', run: showHelp },
    { keys: '/', on: ['/'], does: 'Ask in one line', run: showAsk },
    ...keys,
    { keys: 'n', on: ['n'], does: 'Night, day, outdoors, red', run: () => modeSwitch.turn() },
    { keys: 'Ctrl Z', on: ['ctrl+z'], does: 'Undo', run: () => undo?.undo() },
    { keys: 'Ctrl Shift Z', on: ['ctrl+shift+z', 'ctrl+y'], does: 'Redo', run: () => undo?.redo() },
  ])

  // Another view, or another section, begins at its heading; the first one leaves the focus alone.
  $effect(() => {
    void heading
    untrack(() => router.arrived && top?.focus({ preventScroll: true }))
  })
  // When the server is there again, what waits is asked anew.
  $effect(() => (problem?.code === 'no_answer' && onretry ? whenBack(onretry) : undefined))
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts, keySettings)} />
<svelte:head
  ><title>{productionName ? `${productionName}: ${heading.toLowerCase()}` : heading} – Hextan</title
  ></svelte:head
>

<a class="skip" href="#content">Skip to {heading.toLowerCase()}</a>
<PageHeader
  {productionId}
  {productionName}
  {current}
  steps={undo?.steps ?? null}
  onundo={() => undo?.undo()}
  onredo={() => undo?.redo()}
  onhelp={showHelp}
  onask={showAsk}
>
  {@render switches?.()}
</PageHeader>
<main id="content" tabindex="-1" aria-busy={late.count > 0}>
  <h1 class="sr-only" tabindex="-1" bind:this={top}>
    {productionName ? `${heading} of ${productionName}` : heading}
  </h1>
  <p class="print-only">
    {productionName && `${productionName}: `}{heading} · {new Date().toISOString().slice(0, 10)}{rule &&
      ` · sharp to ${rule}`}
  </p>
  {#if newVersion.there}<p class="no-print newer" role="status">
      A newer version of Hextan is there.
      <button class="knob" onclick={() => newVersion.load()}>Load it</button>
    </p>{/if}
  <NoticeBar {what} {problem} {differences} {together} {onresolve} {onundo} onretry={onretry ?? null} />
  {@render children()}
  {#if sheet && productionId !== null && !waiting}
    <p class="no-print to-sheet">
      <a
        class="link"
        href="{pathTo(productionId, 'sheets')}/of-{sheet.kind}{sheet.which
          ? `?which=${encodeURIComponent(sheet.which)}`
          : ''}">As a sheet, to print or to send</a
      >
    </p>
  {/if}
  {#if late.count > 0}<p class="late no-print">Figures of a moment ago: the answer is on its way.</p>{/if}
  {#if waiting && !problem}<p class="soft">Computing…</p>{/if}
</main>
<div class="sr-only" aria-live="polite" aria-atomic="true" data-testid="announced">{announcer.text}</div>
{#if everAsked}
  {#await import('../ask/AskDialog.svelte') then { default: AskDialog }}
    <AskDialog open={asking} {productionId} onopen={(open) => (asking = open)} />
  {/await}
{/if}
{#if asked}
  {#await import('./HelpDialog.svelte') then { default: HelpDialog }}
    <HelpDialog open={help} {shortcuts} {more} onopen={(open) => (help = open)} />
  {/await}
{/if}

<style>
  main {
    display: grid;
    gap: 7px;
    padding: 8px 16px 24px;
    grid-template-columns: minmax(0, 1fr);
    outline: none;
  }
  /* What is not of these settings any more says so by its look as well; what is typed stays as it is. */
  main[aria-busy='true'] :global(:is(.figure, canvas):not(input, select, textarea, td)) {
    opacity: 0.5;
  }
  main[aria-busy='true'] :global(td.figure) {
    color: color-mix(in srgb, currentcolor 50%, transparent);
  }
  .late {
    position: fixed;
    left: 50%;
    bottom: 10px;
    z-index: 50;
    padding: 0.3rem 0.8rem;
    background: var(--panel);
    border: 1px solid var(--line-strong);
    font-size: 14px;
    transform: translateX(-50%);
    pointer-events: none;
  }
  .skip {
    position: absolute;
    left: 8px;
    top: -4rem;
    z-index: 60;
    padding: 0.5rem 0.9rem;
    background: var(--panel);
    border: 1px solid var(--line-strong);
  }
  .skip:focus {
    top: 6px;
  }
  @media (max-width: 560px) {
    main {
      padding-inline: 8px;
    }
  }
</style>
