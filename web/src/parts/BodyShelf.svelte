<script lang="ts">
  import { mm } from '../lib/format'
  import type { BodyList, BodySummary, Problem } from '../lib/types'

  interface Props {
    list: BodyList
    /** Bodies of the catalogue. */
    shelf: BodySummary[]
    /** Whether this is the catalogue itself. */
    isShelf: boolean
    chosen: number | null
    problem: Problem | null
    notes: string[]
    hrefOf: (id: number) => string
    onadd: () => void
    oncatalogue: (id: number) => void
    oncopy: (id: number) => void
    onremove: (body: BodySummary) => void
    onrestore: (body: BodySummary) => void
    onfile: (file: File) => void
  }
  let {
    list,
    shelf,
    isShelf,
    chosen,
    problem,
    notes,
    hrefOf,
    onadd,
    oncatalogue,
    oncopy,
    onremove,
    onrestore,
    onfile,
  }: Props = $props()
  const current = $derived(list.bodies.find((body) => body.id === chosen))

  function take(input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) onfile(file)
    input.value = ''
  }
</script>

<aside aria-label="Bodies">
  <ul>
    {#each list.bodies as body (body.id)}
      <li>
        <a href={hrefOf(body.id)} aria-current={body.id === chosen ? 'true' : undefined}>
          <span class="name">{body.name} <span class="soft">{body.maker}</span></span>
          <span class="small"
            ><span class="figure">{mm(body.width_mm)} × {mm(body.height_mm)} mm</span>
            <span class="soft">{body.modes} modes, {body.formats} formats</span></span
          >
          {#if body.changes}<span class="small news">{body.changes} changes in the catalogue</span>{/if}
        </a>
      </li>
    {/each}
  </ul>
  <div class="acts">
    <button class="knob" onclick={onadd}>New body</button>
    <button class="knob" disabled={!current} onclick={() => current && oncopy(current.id)}>Copy</button>
    <button class="knob" disabled={!current} onclick={() => current && onremove(current)}>Take out</button>
    <label class="knob pick"
      >From a file<input
        class="sr-only"
        type="file"
        accept=".json,.fdl,application/json"
        onchange={(event) => take(event.currentTarget)}
      /></label
    >
    {#if !isShelf && shelf.length}
      <select
        class="set"
        aria-label="Take a body from the catalogue"
        value=""
        onchange={(event) => {
          oncatalogue(Number(event.currentTarget.value))
          event.currentTarget.value = ''
        }}
      >
        <option value="" disabled>From the catalogue…</option>
        {#each shelf as body (body.id)}<option value={String(body.id)}>{body.maker} {body.name}</option
          >{/each}
      </select>
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
  {#if list.removed.length}
    <ul aria-label="Taken out">
      {#each list.removed as body (body.id)}
        <li>
          <button class="knob" onclick={() => onrestore(body)}>Bring {body.name} back</button>
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
  a {
    display: grid;
    align-content: start;
    height: 100%;
    min-height: 58px;
    padding: 4px 12px 4px 9px;
    border-left: 2px solid var(--line);
  }
  a:hover {
    background: var(--panel);
  }
  a[aria-current] {
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
  .warn {
    color: var(--warn);
  }
  strong {
    font-weight: 500;
  }
</style>
