<script lang="ts">
  import { onMount } from 'svelte'
  import { BodyEditor } from '../../lib/body.svelte'
  import * as client from '../../lib/client'
  import { router } from '../../lib/router.svelte'
  import { newMode } from '../../lib/rows'
  import type { BodyDocument, BodyList, BodySummary, Problem } from '../../lib/types'
  import BodyShelf from '../../parts/BodyShelf.svelte'
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

  let list = $state.raw<BodyList | null>(null)
  let shelf = $state.raw<BodySummary[]>([])
  let editor = $state.raw<BodyEditor | null>(null)
  /** Why the list or the body could not be read; what was refused of the last thing done stands apart from it. */
  let unread = $state.raw<{ list: Problem | null; body: Problem | null }>({ list: null, body: null })
  let problem = $state.raw<Problem | null>(null)
  let notes = $state.raw<string[]>([])
  /** The body that was asked for last; none when the view is left. */
  let newest: number | null = null
  const current = $derived(list?.bodies.find((body) => body.id === editor?.id))

  async function refresh() {
    const { data, problem: why } = await client.listBodies(productionId)
    if (data) list = data
    unread = { ...unread, list: why ?? null }
  }

  onMount(() => {
    void refresh()
    if (!isShelf) void client.listBodies(shelfId).then(({ data }) => (shelf = data?.bodies ?? []))
    return () => {
      newest = null
      editor?.close()
      onundoable(null)
    }
  })

  // The address names the body; without a name it is the first.
  const wanted = $derived(chosen ?? list?.bodies[0]?.id ?? null)
  // Opening a body asks the server and takes the place of the one before it.
  $effect(() => {
    newest = wanted
    if (wanted !== null) void openBody(wanted)
  })
  // The header's undo works on the body that is open.
  $effect(() => {
    const now = editor
    onundoable(now && { steps: now.steps, undo: () => now.undo(), redo: () => now.redo() })
  })

  async function openBody(id: number) {
    if (editor?.id === id) return
    const { data, problem: why } = await client.readBody(productionId, id)
    if (id !== newest) return
    unread = { ...unread, body: why ?? null }
    if (!data) return
    editor?.close()
    // What is kept after the view is left has no list to refresh.
    editor = new BodyEditor(productionId, data, () => void (newest !== null && refresh()))
  }

  const show = (id: number) => router.go(`/p/${productionId}/package/bodies/${id}`)

  async function add(from: Parameters<typeof client.addBody>[1]) {
    const { data, problem: why } = await client.addBody(productionId, from)
    problem = why ?? null
    if (!data) return
    await refresh()
    show(data.id)
  }

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
    void add({ document: document as unknown as BodyDocument })
  }

  async function setRemoved(body: BodySummary, removed: boolean) {
    if (editor?.id === body.id) await editor.settle()
    const version = editor?.id === body.id ? editor.version : body.version
    const { problem: why } = await client.removeBody(productionId, body.id, version, removed)
    problem = why ?? null
    await refresh()
    if (why) return
    if (removed && editor?.id === body.id) {
      editor.close()
      editor = null
      router.go(`/p/${productionId}/package/bodies`, true)
    } else if (!removed) show(body.id)
  }

  async function addFile(file: File) {
    notes = []
    const kind = /\.fdl$/i.test(file.name) ? 'fdl' : 'json'
    const { data, problem: why } = await client.readFile(productionId, kind, file)
    problem = why ?? null
    if (!data) return
    notes = data.notes
    if (data.deliveries.length) {
      const told = data.deliveries.map(({ label, aspect, protect }) => {
        const ratio = aspect.join(':')
        const spare = protect ? `, ${Math.round(100 * protect)} % protected` : ''
        return `${label === ratio ? ratio : `${label} (${ratio})`}${spare}`
      })
      notes = [...notes, `The file frames for ${told.join('; ')}: set it in the Bench's Delivery link.`]
    }
    await refresh()
    const first = data.bodies[0]
    if (first) show(first.id)
  }
</script>

<svelte:head><title>{productionName}: bodies – Hextan</title></svelte:head>

<BodyShelf
  list={list ?? { bodies: [], removed: [] }}
  {shelf}
  {isShelf}
  chosen={editor?.id ?? null}
  problem={problem ?? unread.list ?? unread.body}
  {notes}
  hrefOf={(id) => `/p/${productionId}/package/bodies/${id}`}
  onadd={addNew}
  oncatalogue={(id) => void add({ catalogue_body_id: id })}
  oncopy={(id) => void add({ body_id: id })}
  onremove={(body) => void setRemoved(body, true)}
  onrestore={(body) => void setRemoved(body, false)}
  onfile={(file) => void addFile(file)}
/>
{#if editor}
  {#key editor}
    <BodyPage
      {editor}
      {productionId}
      linked={current?.catalogue_body_id != null}
      changes={current?.changes ?? 0}
    />
  {/key}
{:else if list && list.bodies.length === 0}
  <p class="soft empty">No body yet. Take one from the catalogue, read a file, or begin a new one.</p>
{/if}

<style>
  .empty {
    padding: 2rem;
  }
</style>
