<script lang="ts">
  import { comparedText, differenceText, LETTERS } from '../../lib/compared'
  import type { Snippet } from 'svelte'
  import type { Faults } from '../../lib/faults'
  import { share } from '../../lib/format'
  import type {
    CompareColumn,
    CompareView,
    ComparisonDocument,
    Package,
    Problem,
    Unit,
  } from '../../lib/types'
  import FinderDrawing from '../drawings/FinderDrawing.svelte'
  import CompareChain from './CompareChain.svelte'

  interface Props {
    document: ComparisonDocument
    view: CompareView
    equipment: Package
    faults: Faults
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    oncolumn: (index: number, part: Partial<CompareColumn>, kind?: string) => void
    oncolumns: (columns: CompareColumn[]) => void
    onadd: () => void
    onmatch: (index: number) => void
    onmatchall: () => void
    onmaster: (index: number) => void
    /** How one of them can match, under the set-ups themselves. */
    matching: Snippet | null
  }
  let {
    document, view, equipment, faults, read, oncolumn, oncolumns, onadd, onmatch, onmatchall, onmaster, matching,
  }: Props = $props() // prettier-ignore
  const MOST = 4
  const master = $derived(LETTERS[view.master] ?? '')
</script>

<!-- It scrolls sideways where the columns need more than the page has. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="wide sideways" role="region" aria-label="Set-ups side by side" tabindex="0">
  <table class="compared" style:--columns={document.columns.length}>
    <thead>
      <tr>
        <th class="rail">
          <button class="knob small no-print" disabled={document.columns.length >= MOST} onclick={onadd}
            >Add a set-up</button
          >
          {#if document.columns.length > 1}<button class="knob small no-print" onclick={onmatchall}
              >Match all to {master}</button
            >{/if}
        </th>
        {#each document.columns as column, i (column.key)}
          {@const shown = view.columns[i]}
          <th class="column" scope="col">
            {#if shown}<CompareChain
                index={i}
                letter={LETTERS[i] ?? ''}
                {column}
                {shown}
                {equipment}
                {read}
                unit={document.unit}
                {faults}
                {master}
                asSet={i === view.master || document.case === 'as_set'}
                alone={document.columns.length < 2}
                onchange={(part, kind) => oncolumn(i, part, kind)}
                onmatch={() => onmatch(i)}
                onmaster={() => onmaster(i)}
                ontake={() => oncolumns(document.columns.filter((c) => c.key !== column.key))}
              />{/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#if matching}<tr class="no-print"
          ><td class="matching" colspan={document.columns.length + 1}
            ><div class="offered">{@render matching()}</div></td
          ></tr
        >{/if}
      <tr>
        <th class="rail soft" scope="row">Through the finder, all at one size</th>
        {#each view.columns as shown (shown.key)}
          <td class="finder"><FinderDrawing view={shown.viewfinder} compact /></td>
        {/each}
      </tr>
      {#each view.rows as row (row.key)}
        <tr data-row={row.key}>
          <th class="rail soft" scope="row">{row.label}</th>
          {#each view.columns as shown, i (shown.key)}
            <td class="figure" class:differs={row.differs[i]}
              >{#if i !== view.master}<span class="sign"
                  ><span aria-hidden="true">{row.differs[i] ? '≠' : '='}</span><span class="sr-only"
                    >{row.differs[i] ? `differs from ${master}` : `as ${master}`}</span
                  ></span
                >{/if}
              {comparedText(row, i, document.unit)}
              {#if row.differs[i]}<span class="soft by">{differenceText(row, i, view.master)}</span>{/if}</td
            >
          {/each}
        </tr>
      {/each}
      <tr>
        <th class="rail soft" scope="row">Watch out</th>
        {#each view.columns as shown (shown.key)}
          <td class="notes"
            >{#if shown.coverage === 'short'}<p class="bad">
                The circle is short: {share(shown.dark_share ?? 0)} of the recording is dark.
              </p>{/if}
            {#each shown.notes as note (note)}<p>{note}</p>{/each}</td
          >
        {/each}
      </tr>
    </tbody>
  </table>
</div>

<style>
  .compared {
    border-collapse: collapse;
    width: 100%;
    min-width: calc(232px + var(--columns) * 230px);
    table-layout: fixed;
  }
  .compared :is(th, td) {
    padding: 1px 12px 1px 0;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
    vertical-align: top;
  }
  .rail {
    width: 232px;
  }
  .finder {
    height: 200px;
  }
  .compared .finder {
    padding: 4px 8px 4px 0;
  }
  .sideways {
    container-type: inline-size;
  }
  .compared .matching {
    padding: 4px 0 8px;
  }
  /* As wide as what is seen of the table, and in view wherever that is moved to. */
  .offered {
    position: sticky;
    left: 0;
    width: 100cqi;
  }
  .differs {
    color: var(--accent);
  }
  .sign {
    display: inline-block;
    width: 1.1rem;
    color: var(--ink-soft);
  }
  .by {
    font-size: 12.5px;
  }
  .notes {
    font-size: 13.5px;
    color: var(--warn);
  }
  @media (max-width: 560px) {
    .rail {
      width: 110px;
    }
    .compared {
      min-width: calc(110px + var(--columns) * 190px);
    }
  }
  @media print {
    .finder {
      height: 140px;
    }
  }
</style>
