<script lang="ts" generics="D extends { name: string }, S">
  import type { Snippet } from 'svelte'
  import * as client from '../../lib/client'
  import type { DocumentEditor } from '../../lib/editor.svelte'
  import type { CatalogueChange, FileKind, Problem } from '../../lib/types'
  import TabPages from '../../parts/controls/TabPages.svelte'
  import CatalogueChanges from '../../parts/documents/CatalogueChanges.svelte'
  import DocumentFiles from '../../parts/documents/DocumentFiles.svelte'
  import KeptState from '../../parts/page/KeptState.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  type Answer = NonNullable<Awaited<ReturnType<typeof client.readFile>>['data']>
  interface Props {
    editor: DocumentEditor<D, S>
    productionId: number
    /** What the document is: a body, a lens set. */
    what: string
    of: FileKind['of']
    /** Whether it was taken from the catalogue, and how many changes wait there. */
    linked: boolean
    changes: number
    /** Its own pages, before those of the catalogue and of files. */
    pages: readonly { value: string; label: string }[]
    /** Says a path of the document in words. */
    words: (path: string) => string
    offered: () => Promise<client.Outcome<{ here: CatalogueChange[] }>>
    settle: (take: string[], leave: string[]) => Promise<client.Outcome<{ version: number; document: D }>>
    /** The document with the rows of a file, and what it holds then. */
    taken: (answer: Answer) => { document: D; told: string } | null
    files: { heading: string; told: string; wholes: string }
    /** What a file is asked for besides; null while it is not known yet. */
    asked?: (kind: FileKind) => object | null
    /** Called when the page of files is opened. */
    onfiles?: () => Promise<void>
    fields: Snippet
    children: Snippet<[string]>
  }
  let {
    editor,
    productionId,
    what,
    of,
    linked,
    changes,
    pages,
    words,
    offered,
    settle,
    taken,
    files,
    asked = () => ({}),
    onfiles,
    fields,
    children,
  }: Props = $props()

  const tabs = $derived([
    ...pages,
    { value: 'catalogue', label: changes ? `Catalogue: ${changes} new` : 'Catalogue' },
    { value: 'files', label: 'Files' },
  ])
  let chosen = $state('')
  const tab = $derived(chosen || (pages[0]?.value ?? 'files'))
  let waiting = $state.raw<CatalogueChange[] | null>(null)
  let kinds = $state.raw<FileKind[]>([])
  let problem = $state.raw<Problem | null>(null)
  let notes = $state.raw<string[]>([])

  async function show(name: string) {
    chosen = name
    if (name === 'catalogue') await look()
    if (name !== 'files') return
    await editor.settle()
    kinds = (await client.fileKinds()).data?.here.filter((kind) => kind.of === of) ?? []
    await onfiles?.()
  }

  async function look() {
    waiting = null
    await editor.settle()
    waiting = (await offered()).data?.here ?? []
  }

  async function settleChanges(take: string[], leave: string[]) {
    await editor.settle()
    const { data, problem: refused } = await settle(take, leave)
    if (data) editor.replace(data)
    else editor.problem = refused
    await look()
  }

  async function readRows(kind: string, file: File) {
    notes = []
    const { data, problem: refused } = await client.readFile(productionId, kind, file, editor.id)
    problem = refused ?? null
    const found = data && taken(data)
    if (!found) return
    editor.change(found.document)
    notes = [`${file.name} is in: ${found.told}`]
  }

  function address(kind: FileKind, template: boolean): string | null {
    if (template) return client.fileAddress(productionId, kind.kind, { template })
    const besides = asked(kind)
    return besides && client.fileAddress(productionId, kind.kind, { document_id: editor.id, ...besides })
  }
</script>

<section
  class="page"
  data-undo
  aria-label="{what.charAt(0).toUpperCase()}{what.slice(1)} {editor.document.name}"
>
  <NoticeBar
    {what}
    problem={editor.problem}
    differences={editor.differences}
    onresolve={(take) => editor.resolve(take)}
    onundo={null}
  />
  {@render fields()}
  <TabPages label="Parts of the {what}" {tabs} value={tab} onchange={(name) => void show(name)}>
    {#snippet beside()}<KeptState faults={editor.faults} {words} />{/snippet}
    <div class="tab">
      {#if tab === 'catalogue'}
        <CatalogueChanges
          {what}
          changes={waiting}
          {linked}
          onsettle={(take, leave) => void settleChanges(take, leave)}
        />
      {:else if tab === 'files'}
        <DocumentFiles
          {kinds}
          addressOf={address}
          {...files}
          {problem}
          {notes}
          onrows={(kind, file) => void readRows(kind, file)}
        />
      {:else}{@render children(tab)}{/if}
    </div>
  </TabPages>
</section>

<style>
  .page,
  .tab {
    display: grid;
    gap: 7px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .tab {
    padding-top: 7px;
  }
</style>
