<script lang="ts">
  import { HANDOVERS } from '../../lib/generated/choices'
  import type { CamerasRead, Problem } from '../../lib/types'
  import Segments from '../controls/Segments.svelte'

  interface Props {
    addressOf: (kind: string, of: string) => string
    /** Files of the whole production and of its shots, which stand elsewhere as well. */
    others: readonly {
      title: string
      carries: string
      lost: string
      back: string
      href: string
      name: string
    }[]
    read: (kind: string, file: Blob) => Promise<{ data?: CamerasRead; problem?: Problem }>
    /** The Bench as a camera of a file is set. */
    hrefOf: (state: CamerasRead['setups'][number]['state']) => string
  }
  let { addressOf, others, read, hrefOf }: Props = $props()
  let of = $state<'bench' | 'comparisons' | 'shots'>('bench')
  const SOURCES = [
    { value: 'bench', label: 'the Bench' },
    { value: 'comparisons', label: 'all comparisons' },
    { value: 'shots', label: 'all shots' },
  ] as const
  let found = $state.raw<CamerasRead | null>(null)
  let problem = $state.raw<Problem | null>(null)
  let busy = $state(false)
  async function take(kind: string, files: FileList | null) {
    const file = files?.[0]
    if (!file) return
    busy = true
    const answer = await read(kind, file)
    busy = false
    found = answer.data ?? null
    problem = answer.problem ?? null
  }
</script>

<section class="files" aria-label="Files for other programs">
  <h2>Files for other programs</h2>
  <div class="row">
    <span class="soft">set-ups of</span>
    <Segments label="Set-ups of" options={SOURCES} value={of} onchange={(value) => (of = value)} />
  </div>
  <!-- A region that scrolls takes the keys of whoever reads it. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="scrolls" role="group" aria-label="Kinds of files" tabindex="0">
    <table>
      <thead>
        <tr>
          <th scope="col">File</th><th scope="col">Carries</th><th scope="col">Is lost</th><th scope="col"
            >Comes back</th
          ><th scope="col">Out</th><th scope="col">In</th>
        </tr>
      </thead>
      <tbody>
        {#each HANDOVERS as kind (kind.kind)}
          <tr>
            <th scope="row">{kind.title}</th>
            <td>{kind.carries}</td>
            <td data-title="is lost">{kind.lost}</td>
            <td data-title="comes back">{kind.back}</td>
            <td><a class="knob small" href={addressOf(kind.kind, of)} download>Save</a></td>
            <td
              >{#if kind.reads}<label class="knob small"
                  >Open …<input
                    class="sr-only"
                    type="file"
                    aria-label="Open {kind.title}"
                    onchange={(event) => {
                      void take(kind.kind, event.currentTarget.files)
                      event.currentTarget.value = ''
                    }}
                  /></label
                >{/if}</td
            >
          </tr>
        {/each}
        {#each others as other (other.title)}
          <tr>
            <th scope="row">{other.title}</th>
            <td>{other.carries}</td>
            <td data-title="is lost">{other.lost}</td>
            <td data-title="comes back">{other.back}</td>
            <td colspan="2"><a class="link" href={other.href}>{other.name}</a></td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <div role="status">
    {#if busy}<p class="soft">…</p>{/if}
    {#if problem}
      {#each problem.faults as fault, i (i)}<p class="bad">{fault.field}: {fault.rule}</p>
      {:else}<p class="bad">{problem.message}</p>{/each}
    {/if}
    {#if found}
      <p>{found.setups.length === 1 ? 'One camera' : `${found.setups.length} cameras`} in the file:</p>
      <ul>
        {#each found.setups as setup, i (i)}
          <li>
            <a class="link" href={hrefOf(setup.state)}>{setup.name}: open on the Bench</a>
            {#each setup.notes as note (note)}<span class="warn note">{note}</span>{/each}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</section>

<style>
  .note {
    margin-left: 0.4em;
  }
  .files {
    display: grid;
    gap: 10px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  .scrolls {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    font-size: 14px;
    min-width: 760px;
  }
  th,
  td {
    padding: 6px 10px 6px 0;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
  }
  thead th,
  th[scope='row'] {
    font-weight: 500;
  }
  .knob {
    position: relative;
    text-decoration: none;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    table,
    tbody,
    tr,
    td,
    th[scope='row'] {
      display: block;
      min-width: 0;
    }
    thead {
      display: none;
    }
    tr {
      padding-bottom: 8px;
      border-bottom: 1px solid var(--line);
    }
    td,
    th[scope='row'] {
      padding: 2px 0;
      border: 0;
    }
    td:empty {
      display: none;
    }
    td[data-title]::before {
      content: attr(data-title) ': ';
      color: var(--ink-soft);
    }
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
</style>
