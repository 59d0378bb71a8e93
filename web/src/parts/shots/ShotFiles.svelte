<script lang="ts">
  import { SHOT_CELLS } from '../../lib/generated/choices'
  import Choice from '../controls/Choice.svelte'
  import type { Problem, ShotsTable, ShotsFileKind } from '../../lib/types'

  interface Props {
    addressOf: (kind: ShotsFileKind) => string
    /** What a file would change: read by the server, kept by nobody. */
    read: (
      kind: ShotsFileKind,
      file: File,
      remove: boolean,
      columns: string[],
    ) => Promise<{ data?: ShotsTable; problem?: Problem }>
    ontake: (table: ShotsTable) => void
  }
  let { addressOf, read, ontake }: Props = $props()

  const KINDS = ['csv', 'xlsx', 'ods', 'otio', 'edl'] as const
  let file = $state.raw<{ file: File; kind: ShotsFileKind } | null>(null)
  let table = $state.raw<ShotsTable | null>(null)
  let remove = $state(false)
  let problem = $state.raw<Problem | null>(null)

  /** What columns are, where it was pointed at: a field by the title. */
  let pointed = $state.raw<Record<string, string>>({})
  /** What a column can be: the number of the shot, a cell of it, or kept as it is. */
  const FIELDS = [
    { value: '', label: 'kept as it is' },
    { value: 'name', label: 'Shot' },
    ...SHOT_CELLS.filter(({ key }) => key !== 'name').map(({ key, title }) => ({ value: key, label: title })),
  ]

  async function look() {
    if (!file) return
    const columns = Object.entries(pointed).map(([title, field]) => `${field}=${title}`)
    const { data, problem: why } = await read(file.kind, file.file, remove, columns)
    table = data ?? null
    problem = why ?? null
  }
  function choose(input: HTMLInputElement) {
    const [chosen] = input.files ?? []
    input.value = ''
    if (!chosen) return
    const ending = chosen.name.toLowerCase().split('.').at(-1)
    file = { file: chosen, kind: KINDS.find((kind) => kind === ending) ?? 'csv' }
    remove = false
    pointed = {}
    void look()
  }
  function leave() {
    file = null
    table = null
    problem = null
  }
  const summary = (read: ShotsTable) =>
    [
      counted(read.new, 'new'),
      counted(read.changed, 'changed'),
      read.renamed.length ? counted(read.renamed, 'renumbered') : '',
      read.moved.length ? counted(read.moved, 'moved') : '',
      counted(read.gone, 'not in it'),
    ]
      .filter(Boolean)
      .join(', ')
  const counted = (names: readonly string[], word: string) =>
    `${names.length} ${word}${names.length ? ` (${some(names)})` : ''}`
  const told = ({ understood, kept, left_out }: ShotsTable) =>
    [
      `Understood: ${some(understood)}.`,
      kept.length ? `Kept as they are: ${some(kept)}.` : '',
      left_out.length ? `Left out, because they are answers: ${some(left_out)}.` : '',
    ].join(' ')
  const some = (names: readonly string[]) =>
    names.length > 12 ? `${names.slice(0, 12).join(', ')} and ${names.length - 12} more` : names.join(', ')
</script>

<div class="bar">
  <span class="soft">As a file</span>
  {#each KINDS as kind (kind)}<a class="link" href={addressOf(kind)} download>{kind.toUpperCase()}</a>{/each}
  <label class="knob"
    >From a file<input
      class="sr-only"
      type="file"
      accept=".csv,.tsv,.txt,.xlsx,.ods,.otio,.edl"
      onchange={(event) => choose(event.currentTarget)}
    /></label
  >
</div>
{#if problem}
  <div class="fault" role="alert">
    {#each problem.faults.slice(0, 8) as fault, i (i)}<p>
        <strong>{fault.field}</strong>
        {fault.rule}
      </p>{:else}<p>{problem.message}</p>{/each}
    <button class="knob" onclick={leave}>Leave it</button>
  </div>
{/if}
{#if table && file}
  <section aria-label="What {file.file.name} would change">
    <p>
      <strong>{file.file.name}</strong>: {summary(table)}
    </p>
    <p class="soft">
      {told(table)}
    </p>
    <details>
      <summary>What each column is</summary>
      <p class="columns">
        {#each table.columns as { title, field }, n (n)}
          <label class="item"
            ><span class="soft">{title}</span>
            <Choice
              label="Column {title}"
              options={FIELDS}
              value={field}
              onchange={(now) => {
                pointed = { ...pointed, [title]: now }
                void look()
              }}
            /></label
          >
        {/each}
      </p>
    </details>
    {#if table.cells.length}
      <details>
        <summary
          >{table.cells.length === 1 ? 'One cell says' : `${table.cells.length} cells say`} something else than
          before</summary
        >
        <ul>
          {#each table.cells as cell, n (n)}
            <li>
              <strong>{cell.shot}</strong>
              {cell.column}: <span class="soft">{cell.before || 'nothing'}</span> → {cell.after || 'nothing'}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
    <div class="bar">
      <button
        class="knob"
        onclick={() => {
          if (table) ontake(table)
          leave()
        }}>Take it</button
      >
      {#if table.gone.length}<label class="item"
          ><input type="checkbox" bind:checked={remove} onchange={() => void look()} /> and remove what is not in
          it</label
        >{/if}
      <button class="knob" onclick={leave}>Leave it</button>
    </div>
  </section>
{/if}

<style>
  section {
    display: grid;
    gap: 4px;
    padding: 6px 10px;
    border-left: 2px solid var(--accent);
    font-size: 14px;
  }
  .columns {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 1.2rem;
  }
  details ul {
    max-height: 14rem;
    overflow-y: auto;
  }
  .knob:focus-within {
    outline: 2px solid var(--accent);
  }
  input {
    accent-color: var(--accent);
  }
</style>
