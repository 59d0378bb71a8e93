<script lang="ts">
  import { onMount } from 'svelte'
  import { BodyEditor } from '../../lib/body.svelte'
  import * as client from '../../lib/client'
  import { newMode } from '../../lib/rows'
  import { Shelf } from '../../lib/shelf.svelte'
  import type { BodyDocument, BodySummary } from '../../lib/types'
  import EquipmentShelf from '../../parts/EquipmentShelf.svelte'
  import { bodyItem } from '../../parts/shelf'
  import BodyPage from './BodyPage.svelte'

  interface Props {
    productionId: number
    productionName: string
    shelfId: number
    isShelf: boolean
    /** Id of the body that the address names. */
    chosen: number | null
    onundoable: (
      now: { steps: { back: number; forth: number }; undo: () => void; redo: () => void } | null,
    ) => void
  }
  let { productionId, productionName, shelfId, isShelf, chosen, onundoable }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const shelf = new Shelf({
    path: `/p/${id}/package/bodies`,
    list: async () => {
      const { data, problem } = await client.listBodies(id)
      return data ? { data: { here: data.bodies, removed: data.removed } } : { problem }
    },
    read: (bodyId) => client.readBody(id, bodyId),
    add: (from: Parameters<typeof client.addBody>[1]) => client.addBody(id, from),
    remove: (bodyId, version, removed) => client.removeBody(id, bodyId, version, removed),
    edit: (kept, onkept) => new BodyEditor(id, kept, onkept),
  })
  let catalogue = $state.raw<BodySummary[]>([])

  onMount(() => {
    void shelf.refresh()
    if (!isShelf) void client.listBodies(shelfId).then(({ data }) => (catalogue = data?.bodies ?? []))
    return () => {
      shelf.leave()
      onundoable(null)
    }
  })

  // The address names the body; without a name it is the first. Opening one asks the server.
  const wanted = $derived(chosen ?? shelf.rows?.[0]?.id ?? null)
  $effect(() => void shelf.open(wanted))
  // The header's undo works on the body that is open.
  $effect(() => {
    const now = shelf.editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })

  function addNew() {
    const photosites = [6000, 4000]
    const document = {
      name: 'New body',
      maker: 'Unknown maker',
      mount: 'unknown',
      photosites,
      pitch_um: 6,
      modes: [{ ...newMode(photosites, []), name: 'Full' }],
    }
    void shelf.add({ document: document as unknown as BodyDocument })
  }

  async function addFile(file: File) {
    shelf.notes = []
    const kind = /\.fdl$/i.test(file.name) ? 'fdl' : 'json'
    const { data, problem } = await client.readFile(id, kind, file)
    shelf.refused = problem ?? null
    if (!data) return
    shelf.notes = data.notes
    if (data.deliveries.length) {
      const told = data.deliveries.map(({ label, aspect, protect }) => {
        const ratio = aspect.join(':')
        const spare = protect ? `, ${Math.round(100 * protect)} % protected` : ''
        return `${label === ratio ? ratio : `${label} (${ratio})`}${spare}`
      })
      shelf.notes = [
        ...shelf.notes,
        `The file frames for ${told.join('; ')}: set it in the Bench's Delivery link.`,
      ]
    }
    const first = data.bodies[0]
    if (first) await shelf.show(first.id)
  }
</script>

<svelte:head><title>{productionName}: bodies – Hextan</title></svelte:head>

<EquipmentShelf
  what="body"
  title="Bodies"
  items={(shelf.rows ?? []).map(bodyItem)}
  removed={shelf.removed.map(bodyItem)}
  shelf={catalogue.map(bodyItem)}
  {isShelf}
  chosen={shelf.editor?.id ?? null}
  problem={shelf.problem}
  notes={shelf.notes}
  hrefOf={shelf.hrefOf}
  accept=".json,.fdl,application/json"
  onadd={addNew}
  oncatalogue={(body) => void shelf.add({ catalogue_body_id: body })}
  oncopy={(body) => void shelf.add({ body_id: body })}
  onremove={(item) => void shelf.setRemoved(item, true)}
  onrestore={(item) => void shelf.setRemoved(item, false)}
  onfile={(file) => void addFile(file)}
/>
{#if shelf.editor}
  {#key shelf.editor}
    <BodyPage
      editor={shelf.editor}
      {productionId}
      linked={shelf.current?.catalogue_body_id != null}
      changes={shelf.current?.changes ?? 0}
    />
  {/key}
{:else if shelf.rows?.length === 0}
  <p class="soft empty">No body yet. Take one from the catalogue, read a file, or begin a new one.</p>
{/if}

<style>
  .empty {
    padding: 2rem;
  }
</style>
