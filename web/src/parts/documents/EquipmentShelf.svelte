<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import type { Problem } from '../../lib/types'
  import type { ShelfItem } from './shelf'

  interface Props {
    /** What one of them is called, and how the list is titled. */
    what: string
    title: string
    items: ShelfItem[]
    removed: ShelfItem[]
    /** Those of the catalogue. */
    shelf: ShelfItem[]
    /** Whether this is the catalogue itself. */
    isShelf: boolean
    chosen: number | null
    problem: Problem | null
    notes: string[]
    hrefOf: (id: number) => string
    /** Where a new one is entered. */
    newPath: string
    oncatalogue: (id: number) => void
    oncopy: (id: number) => void
    onput: (item: ShelfItem) => void
    onremove: (item: ShelfItem) => void
    onrestore: (item: ShelfItem) => void
    /** Kinds of files that are read here. */
    accept: string
    onfile: (file: File) => void
  }
  let {
    what,
    title,
    items,
    removed,
    shelf,
    isShelf,
    chosen,
    problem,
    notes,
    hrefOf,
    newPath,
    oncatalogue,
    oncopy,
    onput,
    onremove,
    onrestore,
    accept,
    onfile,
  }: Props = $props()
  const current = $derived(items.find((item) => item.id === chosen))

  function take(input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) onfile(file)
    input.value = ''
  }
</script>

<aside aria-label={title}>
  <ul>
    {#each items as item (item.id)}
      <li>
        <a href={hrefOf(item.id)} aria-current={item.id === chosen ? 'true' : undefined}>
          <span class="name">{item.name} <span class="soft">{item.maker}</span></span>
          <span class="small"
            ><span class="figure">{item.figure}</span>
            <span class="soft">{item.told}</span></span
          >
          {#if item.changes}<span class="small news">{item.changes} changes in the catalogue</span>{/if}
        </a>
      </li>
    {/each}
  </ul>
  <div class="acts">
    <a class="knob" href={newPath}>New {what}</a>
    <button class="knob" disabled={!current} onclick={() => current && oncopy(current.id)}>Copy</button>
    <button class="knob" disabled={!current} onclick={() => current && onremove(current)}>Remove</button>
    {#if !isShelf}<button class="knob" disabled={!current} onclick={() => current && onput(current)}
        >To the catalogue</button
      >{/if}
    <label class="knob pick"
      >From a file<input
        class="sr-only"
        type="file"
        {accept}
        onchange={(event) => take(event.currentTarget)}
      /></label
    >
    {#if !isShelf && shelf.length}
      <Choice
        label="Take a {what} from the catalogue"
        options={shelf.map((item) => ({
          value: item.id,
          label: `${item.maker} ${item.name}, ${item.sought}`,
        }))}
        value={null}
        onchange={oncatalogue}
        placeholder="From the catalogue…"
        search
      />
    {/if}
  </div>
  {#if problem}
    <div class="fault" role="alert">
      {#each problem.faults.slice(0, 12) as fault, i (i)}
        <p><strong>{fault.field}</strong> {fault.rule}</p>
      {:else}<p>{problem.message}</p>{/each}
      {#if problem.faults.length > 12}<p>And {problem.faults.length - 12} more.</p>{/if}
    </div>
  {/if}
  {#each notes as note (note)}<p class="warn">{note}</p>{/each}
  {#if removed.length}
    <ul aria-label="Removed">
      {#each removed as item (item.id)}
        <li>
          <button class="knob" onclick={() => onrestore(item)}>Bring {item.name} back</button>
        </li>
      {/each}
    </ul>
  {/if}
</aside>

<style>
  aside {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
    min-width: 0;
    font-size: 14px;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  li a {
    display: grid;
    align-content: start;
    height: 100%;
    min-height: 58px;
    padding: 4px 12px 4px 9px;
    border-left: 2px solid var(--line);
  }
  li a:hover {
    background: var(--panel);
  }
  li a[aria-current] {
    background: var(--cell);
    border-left-color: var(--accent);
  }
  .name {
    font-size: 15.5px;
  }
  .small {
    font-size: 12.5px;
  }
  .news {
    color: var(--accent);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem;
  }
  .pick:focus-within {
    outline: 2px solid var(--accent);
  }
  .fault,
  .warn {
    flex-basis: 100%;
  }
</style>
