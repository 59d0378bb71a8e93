<script lang="ts">
  import type { Component } from 'svelte'
  import * as client from '../lib/client'
  import { pathTo, router } from '../lib/router.svelte'
  import type { Shortcut } from '../lib/shortcuts'
  import { SECTIONS, type SectionProps, type Undoable, type ViewProps } from '../lib/views'
  import SectionLinks from '../parts/page/SectionLinks.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import Failed from '../parts/page/Failed.svelte'

  const views = import.meta.glob<Component<SectionProps>>('./package/*View.svelte', {
    eager: true,
    import: 'default',
  })
  let { productionId, rest }: ViewProps = $props()

  const section = $derived(SECTIONS.find((s) => s.name === rest[0]) ?? SECTIONS[0])
  const Section = $derived(views[`./package/${section.file}.svelte`])
  let attempt = $state(0)
  const loading = $derived(attempt >= 0 ? open(productionId) : null)
  /** What can be undone is known by the section that is shown. */
  let undo = $state<Undoable | null>(null)

  async function open(id: number) {
    const [productions, shelf] = await Promise.all([client.listProductions(), client.readCatalogue()])
    if (!productions.data || !shelf.data) return { problem: productions.problem ?? shelf.problem }
    const isShelf = shelf.data.id === id
    const found = isShelf ? shelf.data : productions.data.here.find((p) => p.id === id)
    if (!found) {
      return { problem: { code: 'not_found', message: `There is no production ${id}.`, faults: [] } }
    }
    return { name: found.name, shelfId: shelf.data.id, isShelf, home: productions.data.here[0] }
  }

  const keys: Shortcut[] = SECTIONS.map(({ name, title }, i) => ({
    keys: String((i + 1) % 10),
    on: [String((i + 1) % 10)],
    does: title,
    run: () => router.go(pathTo(productionId, 'package', name)),
  }))
  const inGrids: { keys: string; does: string }[] = [
    { keys: '↑ ↓ Home End', does: 'In a grid: another cell; with Shift a block, with Ctrl to the end' },
    { keys: 'F2 or typing', does: 'In a grid: write into the cell. Enter keeps it, Tab goes on to the next, Esc drops it' },
    { keys: 'Ctrl C  Ctrl V', does: 'In a grid: copy and paste blocks, also from and to a spreadsheet' },
    { keys: 'Alt ↑ ↓', does: 'In a grid: move the row up or down' },
    { keys: 'Alt Enter', does: 'In a grid: a new row below' },
    { keys: 'Alt Delete', does: 'In a grid: delete the row' },
  ] // prettier-ignore
</script>

{#await loading}
  <p class="waiting soft">Opening the package…</p>
{:then opened}
  {@const { name, shelfId, isShelf, home, problem } = opened ?? {}}
  {#if problem}
    <Failed {problem} onretry={() => (attempt += 1)}><a class="knob" href="/">To the Bench</a></Failed>
  {:else}
    <ViewFrame
      productionId={isShelf ? (home?.id ?? productionId) : productionId}
      productionName={name ?? ''}
      current="package"
      heading={section.title}
      {undo}
      {keys}
      more={inGrids}
    >
      <SectionLinks {productionId} current={section.name}>
        {#if isShelf}
          {#if home}<a href={pathTo(home.id, 'package')}>Back to {home.name}</a>{/if}
        {:else}
          <a href={pathTo(shelfId ?? 0, 'package', 'bodies')}>Open the catalogue</a>
        {/if}
      </SectionLinks>
      {#if Section}
        <Section
          {productionId}
          productionName={name ?? ''}
          shelfId={shelfId ?? 0}
          isShelf={isShelf ?? false}
          chosen={section.name === rest[0] && rest[1] ? Number(rest[1]) : null}
          onundoable={(now) => (undo = now)}
        />
      {/if}
    </ViewFrame>
  {/if}
{/await}
