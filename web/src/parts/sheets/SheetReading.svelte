<script lang="ts">
  import { printing } from '../../lib/printing.svelte'
  import { partsOf } from '../../lib/sheets'
  import type { Sheet, SheetTable } from '../../lib/types'
  import ShapePicture from './ShapePicture.svelte'

  interface Props {
    sheet: Sheet
    /** Which state of it this is, as it is printed. */
    state: string
  }
  let { sheet, state }: Props = $props()
  /** Characters that stand beside one another on paper. */
  const ROOM = 150
  const parts = (table: SheetTable) =>
    printing.current ? partsOf(table, ROOM) : [table.columns.map((_, j) => j)]

  interface Span {
    title: string
    more: string
    count: number
  }
  function groups(table: SheetTable, part: readonly number[]): Span[] {
    const spans: Span[] = []
    for (const j of part) {
      const { group, group_more } = table.columns[j] ?? { group: '', group_more: '' }
      const last = spans.at(-1)
      if (last && last.title === group && last.more === group_more) last.count += 1
      else spans.push({ title: group, more: group_more, count: 1 })
    }
    return spans.some((span) => span.title) ? spans : []
  }
  function sections(table: SheetTable) {
    const found: { title: string; rows: SheetTable['rows'] }[] = []
    for (const row of table.rows) {
      const last = found.at(-1)
      if (last && last.title === row.section) last.rows.push(row)
      else found.push({ title: row.section, rows: [row] })
    }
    return found
  }
</script>

<article>
  <h2>{sheet.title}</h2>
  {#if sheet.lead}<p>{sheet.lead}</p>{/if}
  {#each sheet.notes as note (note)}<p class="soft">{note}</p>{/each}
  {#each sheet.blocks as block, b (b)}
    {#if block.kind === 'table'}
      {#if block.heading}<h3 class:own={block.own_page}>{block.heading}</h3>{/if}
      {#if block.told}<p class="soft">{block.told}</p>{/if}
      {#each parts(block) as part, p (p)}
        <!-- A region that scrolls takes the keys of whoever reads it. -->
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="scrolls" role="group" aria-label={block.heading || sheet.title} tabindex="0">
          <table>
            <thead>
              {#if groups(block, part).length}
                <tr>
                  {#each groups(block, part) as span, s (s)}
                    <th scope={span.title ? 'colgroup' : undefined} colspan={span.count}
                      >{span.title}{#if span.more}<span class="soft more">{span.more}</span>{/if}</th
                    >
                  {/each}
                </tr>
              {/if}
              <tr>
                {#each part as j (j)}
                  {@const column = block.columns[j]}
                  <th scope="col" class:figure={!column?.words}
                    >{column?.title}{#if column?.unit}<span class="soft more">{column.unit}</span>{/if}</th
                  >
                {/each}
              </tr>
            </thead>
            {#each sections(block) as section, s (s)}
              <tbody>
                {#if section.title}
                  <tr><th scope="rowgroup" colspan={part.length} class="section">{section.title}</th></tr>
                {/if}
                {#each section.rows as row, r (r)}
                  <tr>
                    {#each part as j (j)}
                      {@const cell = row.cells[j]}
                      {#if j === 0}
                        <th scope="row" class="{cell?.tone} first" class:figure={!block.columns[j]?.words}
                          >{cell?.text}</th
                        >
                      {:else}
                        <td class={cell?.tone} class:figure={!block.columns[j]?.words}>{cell?.text}</td>
                      {/if}
                    {/each}
                  </tr>
                {/each}
              </tbody>
            {/each}
          </table>
        </div>
      {/each}
    {:else if block.kind === 'pictures'}
      {#if block.heading}<h3 class:own={block.own_page}>{block.heading}</h3>{/if}
      {#if block.told}<p class="soft">{block.told}</p>{/if}
      {#each block.rows as row, r (r)}
        {#if row.title}<h4>{row.title} <span class="soft">{row.more}</span></h4>{/if}
        <div class="pictures">
          {#each row.pictures as picture, k (k)}
            {#if picture}
              <div>
                {#if block.columns[k]}<p class="small">
                    <strong>{block.columns[k]}</strong> <span class="soft">{block.columns_more[k]}</span>
                  </p>{/if}
                <ShapePicture {picture} scale={block.to_scale ? 5 : null} />
              </div>
            {:else if row.why_not[k]}
              <p class="small soft">{block.columns[k]}: {row.why_not[k]}</p>
            {/if}
          {/each}
        </div>
      {/each}
    {:else}
      {#if block.heading}<h3>{block.heading}</h3>{/if}
      <ul class:caution={block.caution}>
        {#each block.lines as line, i (i)}<li>{line}</li>{/each}
      </ul>
    {/if}
  {/each}
  <footer class="soft">
    <p>{sheet.stamp.map((fact) => `${fact.name}: ${fact.text}`).join(' · ')}</p>
    <p>State {state}.</p>
  </footer>
</article>

<style>
  article {
    display: grid;
    gap: 6px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
    max-width: 1100px;
  }
  h2 {
    font-size: 22px;
  }
  h3 {
    margin-top: 12px;
    font-size: 17px;
  }
  h4 {
    margin-top: 8px;
    font-size: 15px;
  }
  .scrolls {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    font-size: 14px;
  }
  th,
  td {
    padding: 2px 8px;
    text-align: left;
    vertical-align: top;
    white-space: nowrap;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
  }
  td:not(.figure) {
    white-space: normal;
    min-width: 8ch;
  }
  .more {
    margin-left: 0.4em;
  }
  thead th {
    font-weight: 500;
    vertical-align: bottom;
  }
  th[scope='colgroup'] {
    border-left: 1px solid var(--line);
  }
  .figure {
    text-align: right;
  }
  .section {
    padding-top: 8px;
    font-weight: 500;
  }
  .first {
    position: sticky;
    left: 0;
    background: var(--ground);
  }
  .focus {
    font-weight: 500;
  }
  .covers {
    color: var(--ok);
  }
  .marginal {
    color: var(--warn);
  }
  .short {
    color: var(--bad);
  }
  .quiet {
    color: var(--ink-soft);
  }
  .pictures {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
    gap: 10px;
    align-items: start;
  }
  .small {
    font-size: 13px;
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
  .caution {
    border-left: 3px solid var(--warn);
  }
  footer {
    margin-top: 10px;
    font-size: 13px;
  }
  @media print {
    .own {
      break-before: page;
    }
    tr,
    .pictures > * {
      break-inside: avoid;
    }
    h3,
    h4,
    thead {
      break-after: avoid;
    }
    .pictures {
      grid-template-columns: repeat(4, 1fr);
    }
    .first {
      position: static;
    }
  }
</style>
