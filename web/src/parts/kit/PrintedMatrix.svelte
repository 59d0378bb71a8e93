<script lang="ts">
  import { mm } from '../../lib/format'
  import type { KitMatrix } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'
  import { angleText, cellText, verdictsOf } from './matrix'

  interface Props {
    matrix: KitMatrix
  }
  let { matrix }: Props = $props()
  /** So many columns stand beside one another on a page; the rest goes below, with the lenses again. */
  const ACROSS = 11
  const parts = $derived(
    Array.from({ length: Math.ceil(matrix.columns.length / ACROSS) }, (_, i) => i * ACROSS),
  )
</script>

{#each parts as start (start)}
  {@const columns = matrix.columns.slice(start, start + ACROSS)}
  <table>
    <caption>
      Formats {start + 1}–{start + columns.length} of {matrix.columns.length}: equivalent focal length,
      horizontal angle, coverage
    </caption>
    <thead>
      <tr>
        <th scope="col">Lens</th>
        {#each columns as c (c.format_id)}
          <th scope="col"
            >{c.name}{#if c.also.length}
              +{c.also.length}{/if}<br /><span class="soft">{c.body}</span><br /><span class="soft"
              >{mm(c.picture_mm[0])} mm{c.highest_fps ? `, ${c.rate_text} fps` : ''}{c.faster
                ? `; ${c.faster}`
                : ''}{#each c.needs as need (need)}; {need}{/each}</span
            ></th
          >
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each matrix.rows as r, i (i)}
        {#if i === 0 || matrix.rows[i - 1]?.lens_set_id !== r.lens_set_id}
          <tr><th scope="rowgroup" colspan={columns.length + 1} class="set-name">{r.set}</th></tr>
        {/if}
        <tr>
          <th scope="row"
            >{r.name}{#if r.stands_in['image_circle_mm']}<br /><span class="soft">circle assumed</span
              >{/if}</th
          >
          {#each columns as c, n (c.format_id)}
            {@const j = start + n}
            <td
              >{#if r.verdict[j] === 'impossible'}–{:else}{cellText(r, j) || 'fish'}
                {verdictsOf(r, j)
                  .map((v) => COVERAGE[v].sign)
                  .join('')}<br /><span class="soft">{angleText(r, j)}</span>{/if}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
{/each}

<style>
  table {
    width: 100%;
    margin-bottom: 12px;
    border-collapse: collapse;
  }
  table + table {
    break-before: page;
  }
  caption {
    padding: 4px 0;
    text-align: left;
  }
  th {
    text-align: left;
    font-weight: 400;
    vertical-align: bottom;
  }
  th:not(:first-child),
  td {
    text-align: right;
  }
  tr {
    border-bottom: 1px solid var(--line);
    break-inside: avoid;
  }
  .set-name {
    padding-top: 6px !important;
    font-weight: 500;
    break-after: avoid;
  }
</style>
