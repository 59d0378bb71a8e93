<script lang="ts">
  import type { SheetKind } from '../lib/sheets'
  import type { Component } from 'svelte'
  import * as client from '../lib/client'
  import { recent } from '../lib/recent.svelte'
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
  /** The one that is open, or none yet: a list, and no await block, as in `OpenBench`. */
  let opened = $state.raw<Awaited<ReturnType<typeof open>>[]>([])
  $effect(() => {
    void attempt
    let left = false
    void open(productionId).then((found) => {
      if (!left) opened = [found]
    })
    return () => {
      left = true
      opened = []
    }
  })
  /** What can be undone is known by the section that is shown. */
  let undo = $state<Undoable | null>(null)

  async function open(id: number) {
    const shelf = await client.readCatalogue(id)
    if (!shelf.data) return { problem: shelf.problem }
    const shelfId = shelf.data.id
    if (shelfId !== id) {
      const { data, problem } = await client.readProduction(id)
      if (!data) return { problem }
      const { name } = data.facts
      return { name, shelfId, isShelf: false, home: { id, name } }
    }
    // From the catalogue one goes back to where one was.
    const { data, problem } = await client.listProductions()
    const home = recent.list[0] ?? data?.here[0]
    return data ? { name: 'Catalogue', shelfId, isShelf: true, home } : { problem }
  }

  // Ten sections have a figure as their key.
  const keys: Shortcut[] = SECTIONS.slice(0, 10).map(({ name, title }, i) => ({
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

  /** What of a section can be printed as a sheet. */
  const SHEETS: Partial<Record<string, SheetKind>> = {
    bodies: 'formats', lenses: 'coverage', mounts: 'adapters', coverage: 'coverage', kit: 'lens_by_format',
    match: 'field', data: 'cards',
  } // prettier-ignore
  const sheetOf = (name: string) => (SHEETS[name] ? { kind: SHEETS[name] } : null)
</script>

{#each opened as found (found)}
  {@const { name, shelfId, isShelf, home, problem } = found}
  {#if problem}
    <Failed {problem} onretry={() => (attempt += 1)}><a class="knob" href="/">To the productions</a></Failed>
  {:else}
    <ViewFrame
      productionId={home?.id ?? null}
      productionName={home?.name ?? ''}
      current="package"
      sheet={isShelf || !home ? null : sheetOf(section.name)}
      heading={isShelf ? `${section.title} in the catalogue` : section.title}
      {undo}
      {keys}
      more={inGrids}
    >
      <SectionLinks {productionId} current={section.name}>
        {#if isShelf}
          {#if home}<a href={pathTo(home.id, 'package')}>Back to the production</a>{/if}
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
          chosen={section.name === rest[0] && Number(rest[1]) ? Number(rest[1]) : null}
          isNew={section.name === rest[0] && rest[1] === 'new'}
          onundoable={(now) => (undo = now)}
        />
      {/if}
    </ViewFrame>
  {/if}
{:else}
  <p class="waiting soft">Opening the package…</p>
{/each}
