<script
  lang="ts"
  generics="R extends { id: number; version: number }, K extends { id: number }, E extends OpenDocument, A"
>
  import { onMount, type Snippet } from 'svelte'
  import type { Outcome } from '../../lib/client'
  import type { OpenDocument, Shelf } from '../../lib/shelf.svelte'
  import type { SectionProps } from '../../lib/views'
  import EquipmentShelf from '../../parts/documents/EquipmentShelf.svelte'
  import type { ShelfItem } from '../../parts/documents/shelf'

  interface Props extends Pick<SectionProps, 'shelfId' | 'isShelf' | 'chosen' | 'onundoable'> {
    shelf: Shelf<R, K, E, A>
    /** What one document is called, and the list of them. */
    what: string
    title: string
    accept: string
    item: (row: R) => ShelfItem
    list: (productionId: number) => Promise<Outcome<{ here: R[] }>>
    /** Puts a document into the catalogue. */
    toCatalogue: (document: E['document']) => Promise<Outcome<unknown>>
    /** A document of the catalogue, or of this list, as it is added again. */
    fromCatalogue: (id: number) => A
    fromHere: (id: number) => A
    /** Where a new one is entered. */
    newPath: string
    onfile: (file: File) => void
    children: Snippet<[E, R | undefined]>
  }
  let {
    shelf, what, title, accept, item, list, toCatalogue, fromCatalogue, fromHere, newPath, onfile, children,
    shelfId, isShelf, chosen, onundoable,
  }: Props = $props() // prettier-ignore
  let catalogue = $state.raw<R[]>([])

  onMount(() => {
    void shelf.refresh()
    if (!isShelf) void list(shelfId).then(({ data }) => (catalogue = data?.here ?? []))
    return () => {
      shelf.leave()
      onundoable(null)
    }
  })

  // The address names the document; without a name it is the first. Opening one asks the server.
  const wanted = $derived(chosen ?? shelf.rows?.[0]?.id ?? null)
  $effect(() => void shelf.open(wanted))
  // The header's undo works on the document that is open.
  $effect(() => {
    const now = shelf.editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })
</script>

<EquipmentShelf
  {what}
  {title}
  items={(shelf.rows ?? []).map(item)}
  removed={shelf.removed.map(item)}
  shelf={catalogue.map(item)}
  {isShelf}
  chosen={shelf.editor?.id ?? null}
  problem={shelf.problem}
  notes={shelf.notes}
  hrefOf={shelf.hrefOf}
  {accept}
  {newPath}
  oncatalogue={(id) => void shelf.add(fromCatalogue(id))}
  oncopy={(id) => void shelf.add(fromHere(id))}
  onput={async (row) => {
    if (catalogue.map(item).some((other) => other.maker === row.maker && other.name === row.name)) {
      shelf.notes = [`The catalogue has ${row.name} already. Give this one another name to put it beside it.`]
      return
    }
    if (!shelf.editor) return
    shelf.refused = (await toCatalogue(shelf.editor.document)).problem ?? null
    shelf.notes = shelf.refused ? [] : [`${row.name} is in the catalogue now, for other productions to take.`]
    if (!shelf.refused) void list(shelfId).then(({ data }) => (catalogue = data?.here ?? catalogue))
  }}
  onremove={(row) => void shelf.setRemoved(row, true)}
  onrestore={(row) => void shelf.setRemoved(row, false)}
  {onfile}
/>
{#if shelf.editor}
  {#key shelf.editor}{@render children(shelf.editor, shelf.current)}{/key}
{:else if shelf.rows?.length === 0}
  <p class="soft empty">
    No {what} yet. <a class="link" href={newPath}>Enter one from few facts</a>, take one from the catalogue,
    or read a file.
  </p>
{/if}

<style>
  .empty {
    padding: 2rem;
  }
</style>
