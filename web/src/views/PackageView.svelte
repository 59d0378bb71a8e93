<script lang="ts">
  import * as client from '../lib/client'
  import { modeSwitch } from '../lib/mode.svelte'
  import { router } from '../lib/router.svelte'
  import { runShortcut, type Shortcut } from '../lib/shortcuts'
  import HelpDialog from '../parts/HelpDialog.svelte'
  import PageHeader from '../parts/PageHeader.svelte'
  import BodiesView from './package/BodiesView.svelte'
  import CoverageView from './package/CoverageView.svelte'
  import DataView from './package/DataView.svelte'
  import FinderView from './package/FinderView.svelte'
  import KitView from './package/KitView.svelte'
  import LadderView from './package/LadderView.svelte'
  import LensesView from './package/LensesView.svelte'
  import MatchView from './package/MatchView.svelte'
  import RigView from './package/RigView.svelte'
  import SpeedView from './package/SpeedView.svelte'

  interface Props {
    productionId: number
    /** What follows in the path: the section, and the body. */
    rest: string[]
  }
  let { productionId, rest }: Props = $props()

  const SECTIONS = [
    { name: 'bodies', title: 'Bodies' },
    { name: 'lenses', title: 'Lenses' },
    { name: 'mounts', title: 'Mounts and adapters' },
    { name: 'coverage', title: 'Coverage' },
    { name: 'kit', title: 'Whole kit' },
    { name: 'ladder', title: 'Ladder' },
    { name: 'match', title: 'Match and framing' },
    { name: 'speed', title: 'Speed' },
    { name: 'finder', title: 'Format finder' },
    { name: 'data', title: 'Pixels and data' },
  ]
  const section = $derived(SECTIONS.find((s) => s.name === rest[0])?.name ?? 'bodies')
  const loading = $derived(open(productionId))
  let help = $state(false)
  /** What can be undone is known by the section that is shown. */
  let undo = $state<{
    steps: { back: number; forth: number }
    undo: () => void
    redo: () => void
  } | null>(null)

  async function open(id: number) {
    const [productions, shelf] = await Promise.all([client.listProductions(), client.readCatalogue()])
    if (!productions.data || !shelf.data) return { problem: productions.problem ?? shelf.problem }
    const isShelf = shelf.data.id === id
    const found = isShelf ? shelf.data : productions.data.find((p) => p.id === id)
    if (!found) {
      return { problem: { code: 'not_found', message: `There is no production ${id}.`, faults: [] } }
    }
    return { name: found.name, shelfId: shelf.data.id, isShelf, home: productions.data[0] }
  }

  const shortcuts: Shortcut[] = [
    { keys: '?', on: ['?'], does: 'These keys', run: () => (help = true) },
    { keys: 'n', on: ['n'], does: 'Night or day', run: () => modeSwitch.toggle() },
    ...SECTIONS.map(({ name, title }, i) => ({
      keys: String((i + 1) % 10),
      on: [String((i + 1) % 10)],
      does: title,
      run: () => router.go(`/p/${productionId}/package/${name}`),
    })),
    { keys: 'Ctrl Z', on: ['ctrl+z'], does: 'Undo', run: () => undo?.undo() },
    { keys: 'Ctrl Shift Z', on: ['ctrl+shift+z', 'ctrl+y'], does: 'Redo', run: () => undo?.redo() },
  ]
  const inGrids: { keys: string; does: string }[] = [
    { keys: '↑ ↓ Enter', does: 'In a grid: the same figure of the row above or below' },
    { keys: 'Alt ↑ ↓', does: 'In a grid: move the row up or down' },
    { keys: 'Alt Enter', does: 'In a grid: a new row below' },
    { keys: 'Alt Delete', does: 'In a grid: delete the row' },
  ]
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts)} />

{#await loading}
  <p class="waiting soft">Opening the package…</p>
{:then { name, shelfId, isShelf, home, problem }}
  {#if problem}
    <p class="waiting fault" role="alert">{problem.message} <a class="knob" href="/">To the Bench</a></p>
  {:else}
    <PageHeader
      productionId={isShelf ? (home?.id ?? productionId) : productionId}
      productionName={name ?? ''}
      current="package"
      steps={undo?.steps ?? null}
      onundo={() => undo?.undo()}
      onredo={() => undo?.redo()}
      onhelp={() => (help = true)}
    />
    <main>
      <nav class="sections" aria-label="Sections of the package">
        {#each SECTIONS as { name: at, title } (at)}
          <a href="/p/{productionId}/package/{at}" aria-current={at === section ? 'page' : undefined}
            >{title}</a
          >
        {/each}
        {#if isShelf}
          {#if home}<a class="aside" href="/p/{home.id}/package">Back to {home.name}</a>{/if}
        {:else}
          <a class="aside" href="/p/{shelfId}/package/bodies">Open the catalogue</a>
        {/if}
      </nav>
      {#if section === 'bodies'}
        <BodiesView
          {productionId}
          shelfId={shelfId ?? 0}
          isShelf={isShelf ?? false}
          chosen={rest[0] === 'bodies' && rest[1] ? Number(rest[1]) : null}
          productionName={name ?? ''}
          onundoable={(now) => (undo = now)}
        />
      {:else if section === 'lenses'}
        <LensesView
          {productionId}
          shelfId={shelfId ?? 0}
          isShelf={isShelf ?? false}
          chosen={rest[0] === 'lenses' && rest[1] ? Number(rest[1]) : null}
          productionName={name ?? ''}
          onundoable={(now) => (undo = now)}
        />
      {:else if section === 'mounts'}
        <RigView {productionId} productionName={name ?? ''} onundoable={(now) => (undo = now)} />
      {:else if section === 'coverage'}
        <CoverageView {productionId} productionName={name ?? ''} />
      {:else if section === 'kit'}
        <KitView {productionId} productionName={name ?? ''} />
      {:else if section === 'ladder'}
        <LadderView {productionId} productionName={name ?? ''} />
      {:else if section === 'match'}
        <MatchView {productionId} productionName={name ?? ''} />
      {:else if section === 'speed'}
        <SpeedView {productionId} productionName={name ?? ''} />
      {:else if section === 'finder'}
        <FinderView {productionId} productionName={name ?? ''} />
      {:else}
        <DataView {productionId} productionName={name ?? ''} />
      {/if}
    </main>
    <HelpDialog open={help} {shortcuts} more={inGrids} onopen={(now) => (help = now)} />
  {/if}
{/await}

<style>
  .waiting {
    padding: 2rem;
  }
  main {
    display: grid;
    gap: 8px;
    padding: 6px 16px 24px;
    grid-template-columns: minmax(0, 1fr);
  }
  .sections {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.3rem;
    font-size: 15px;
  }
  .sections a {
    padding-block: 2px;
    color: var(--ink-soft);
    border-bottom: 2px solid transparent;
  }
  .sections a:hover {
    color: var(--ink);
  }
  .sections a[aria-current] {
    color: var(--ink);
    border-bottom-color: var(--accent);
  }
  .aside {
    margin-left: auto;
  }
  @media (max-width: 560px) {
    main {
      padding-inline: 8px;
    }
  }
  @media (pointer: coarse) {
    .sections a {
      padding-block: 8px;
    }
  }
</style>
