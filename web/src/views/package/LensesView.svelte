<script lang="ts">
  import * as client from '../../lib/client'
  import { LensSetEditor } from '../../lib/lenses.svelte'
  import { pathTo } from '../../lib/router.svelte'
  import { Shelf } from '../../lib/shelf.svelte'
  import type { SectionProps } from '../../lib/views'
  import { lensSetItem } from '../../parts/documents/shelf'
  import LensSetPage from './LensSetPage.svelte'
  import QuickLenses from './QuickLenses.svelte'
  import ShelfPage from './ShelfPage.svelte'

  let { productionId, isNew, ...section }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const shelf = new Shelf({
    path: pathTo(id, 'package', 'lenses'),
    list: () => client.listLensSets(id),
    read: (setId) => client.readLensSet(id, setId),
    add: (from: Parameters<typeof client.addLensSet>[1]) => client.addLensSet(id, from),
    remove: (setId, version, removed) => client.removeLensSet(id, setId, version, removed),
    edit: (kept, onkept) => new LensSetEditor(id, kept, onkept),
  })

  async function addFile(file: File) {
    const { data, problem } = await client.readFile(id, 'lens-sets.json', file)
    shelf.refused = problem ?? null
    const first = data?.lens_sets[0]
    if (first) await shelf.show(first.id)
  }
</script>

{#if isNew}
  <QuickLenses {productionId} />
{:else}
  <ShelfPage
    {...section}
    {shelf}
    what="set"
    title="Lens sets"
    accept=".json,application/json"
    item={lensSetItem}
    list={client.listLensSets}
    toCatalogue={(document) => client.addLensSet(section.shelfId, { document })}
    fromCatalogue={(set) => ({ catalogue_lens_set_id: set })}
    fromHere={(set) => ({ lens_set_id: set })}
    newPath={pathTo(id, 'package', 'lenses', 'new')}
    onfile={(file) => void addFile(file)}
  >
    {#snippet children(editor, row)}
      <LensSetPage
        {editor}
        {productionId}
        linked={row?.catalogue_lens_set_id != null}
        changes={row?.changes ?? 0}
      />
    {/snippet}
  </ShelfPage>
{/if}
