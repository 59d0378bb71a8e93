<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { LensSetEditor, newLens } from '../../lib/lenses.svelte'
  import { Shelf } from '../../lib/shelf.svelte'
  import type { LensSetDocument, LensSetSummary } from '../../lib/types'
  import EquipmentShelf from '../../parts/EquipmentShelf.svelte'
  import { lensSetItem } from '../../parts/shelf'
  import LensSetPage from './LensSetPage.svelte'

  interface Props {
    productionId: number
    productionName: string
    shelfId: number
    isShelf: boolean
    /** Id of the set that the address names. */
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
    path: `/p/${id}/package/lenses`,
    list: async () => {
      const { data, problem } = await client.listLensSets(id)
      return data ? { data: { here: data.lens_sets, removed: data.removed } } : { problem }
    },
    read: (setId) => client.readLensSet(id, setId),
    add: (from: Parameters<typeof client.addLensSet>[1]) => client.addLensSet(id, from),
    remove: (setId, version, removed) => client.removeLensSet(id, setId, version, removed),
    edit: (kept, onkept) => new LensSetEditor(id, kept, onkept),
  })
  let catalogue = $state.raw<LensSetSummary[]>([])

  onMount(() => {
    void shelf.refresh()
    if (!isShelf) void client.listLensSets(shelfId).then(({ data }) => (catalogue = data?.lens_sets ?? []))
    return () => {
      shelf.leave()
      onundoable(null)
    }
  })

  // The address names the set; without a name it is the first. Opening one asks the server.
  const wanted = $derived(chosen ?? shelf.rows?.[0]?.id ?? null)
  $effect(() => void shelf.open(wanted))
  // The header's undo works on the set that is open.
  $effect(() => {
    const now = shelf.editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })

  function addNew() {
    const document = { name: 'New set', maker: 'Unknown maker', lenses: [newLens([], undefined)] }
    void shelf.add({ document: document as unknown as LensSetDocument })
  }

  async function addFile(file: File) {
    const { data, problem } = await client.readLensSets(id, file)
    shelf.refused = problem ?? null
    const first = data?.lens_sets[0]
    if (first) await shelf.show(first.id)
  }
</script>

<svelte:head><title>{productionName}: lenses – Hextan</title></svelte:head>

<EquipmentShelf
  what="set"
  title="Lens sets"
  items={(shelf.rows ?? []).map(lensSetItem)}
  removed={shelf.removed.map(lensSetItem)}
  shelf={catalogue.map(lensSetItem)}
  {isShelf}
  chosen={shelf.editor?.id ?? null}
  problem={shelf.problem}
  notes={shelf.notes}
  hrefOf={shelf.hrefOf}
  accept=".json,application/json"
  onadd={addNew}
  oncatalogue={(set) => void shelf.add({ catalogue_lens_set_id: set })}
  oncopy={(set) => void shelf.add({ lens_set_id: set })}
  onremove={(item) => void shelf.setRemoved(item, true)}
  onrestore={(item) => void shelf.setRemoved(item, false)}
  onfile={(file) => void addFile(file)}
/>
{#if shelf.editor}
  {#key shelf.editor}
    <LensSetPage
      editor={shelf.editor}
      {productionId}
      linked={shelf.current?.catalogue_lens_set_id != null}
      changes={shelf.current?.changes ?? 0}
    />
  {/key}
{:else if shelf.rows?.length === 0}
  <p class="soft empty">No lens set yet. Take one from the catalogue, read a file, or begin a new one.</p>
{/if}

<style>
  .empty {
    padding: 2rem;
  }
</style>
