<script lang="ts">
  import { BodyEditor } from '../../lib/body.svelte'
  import * as client from '../../lib/client'
  import { pathTo } from '../../lib/router.svelte'
  import { Shelf } from '../../lib/shelf.svelte'
  import type { SectionProps } from '../../lib/views'
  import { bodyItem } from '../../parts/documents/shelf'
  import BodyPage from './BodyPage.svelte'
  import QuickBody from './QuickBody.svelte'
  import ShelfPage from './ShelfPage.svelte'

  let { productionId, isNew, ...section }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const shelf = new Shelf({
    path: pathTo(id, 'package', 'bodies'),
    list: () => client.listBodies(id),
    read: (bodyId) => client.readBody(id, bodyId),
    add: (from: Parameters<typeof client.addBody>[1]) => client.addBody(id, from),
    remove: (bodyId, version, removed) => client.removeBody(id, bodyId, version, removed),
    edit: (kept, onkept) => new BodyEditor(id, kept, onkept),
  })

  async function addFile(file: File) {
    shelf.notes = []
    const kinds = (await client.fileKinds()).data?.here.filter((k) => k.of === 'body' && k.adds) ?? []
    const kind = kinds.find((k) => file.name.toLowerCase().endsWith(`.${k.suffix}`)) ?? kinds[0]
    if (!kind) return
    const { data, problem } = await client.readFile(id, kind.kind, file)
    shelf.refused = problem ?? null
    if (!data) return
    const told = data.deliveries.map(({ label, aspect, protect }) => {
      const ratio = aspect.join(':')
      const spare = protect ? `, ${Math.round(100 * protect)} % protected` : ''
      return `${label === ratio ? ratio : `${label} (${ratio})`}${spare}`
    })
    const framed = `The file frames for ${told.join('; ')}: set it in the Bench's Delivery link.`
    shelf.notes = told.length ? [...data.notes, framed] : data.notes
    const first = data.bodies[0]
    if (first) await shelf.show(first.id)
  }
</script>

{#if isNew}
  <QuickBody {productionId} />
{:else}
  <ShelfPage
    {...section}
    {shelf}
    what="body"
    title="Bodies"
    accept=".json,.fdl,application/json"
    item={bodyItem}
    list={client.listBodies}
    toCatalogue={(document) => client.addBody(section.shelfId, { document })}
    fromCatalogue={(body) => ({ catalogue_body_id: body })}
    fromHere={(body) => ({ body_id: body })}
    newPath={pathTo(id, 'package', 'bodies', 'new')}
    onfile={(file) => void addFile(file)}
  >
    {#snippet children(editor, row)}
      <BodyPage {editor} {productionId} linked={row?.catalogue_body_id != null} changes={row?.changes ?? 0} />
    {/snippet}
  </ShelfPage>
{/if}
