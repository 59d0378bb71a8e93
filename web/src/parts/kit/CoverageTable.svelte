<script lang="ts">
  import { signed } from '../../lib/figures'
  import { degrees, mm, share } from '../../lib/format'
  import type { CoverageAsk, CoverageView } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'

  interface Props {
    lenses: CoverageView['lenses']
    format: string
    chosen: number
    onchange: (part: Partial<CoverageAsk>) => void
  }
  let { lenses, format, chosen, onchange }: Props = $props()
</script>

<div class="grid">
  <table>
    <caption class="sr-only">Coverage of every lens in {format}</caption>
    <thead>
      <tr>
        <th scope="col">Lens in {format}</th>
        <th scope="col">Mounted</th>
        <th scope="col" class="number">Effective</th>
        <th scope="col" class="number">Angle</th>
        <th scope="col" class="number">Circle</th>
        <th scope="col" class="number">Needed</th>
        <th scope="col" class="number">Margin</th>
        <th scope="col" class="number">Dark</th>
        <th scope="col">Coverage</th>
      </tr>
    </thead>
    <tbody>
      {#each lenses as row (`${row.lens_id} ${row.name}`)}
        <tr class:chosen={row.lens_id === chosen}>
          <th scope="row"
            ><button
              class="pick"
              onclick={() =>
                onchange({
                  lens_id: row.lens_id,
                  focal_mm: row.focal_mm,
                  stop: null,
                  adapter_ids: null,
                })}>{row.name}</button
            > <span class="soft">{row.set}</span></th
          >
          <td>{row.via ?? (row.verdict === 'impossible' ? '' : 'directly')}</td>
          <td class="number figure">{mm(row.effective_mm)}</td>
          <td class="number figure">{degrees(row.angle_deg)}</td>
          <td class="number figure">{mm(row.circle_mm)}</td>
          <td class="number figure">{mm(row.needed_mm)}</td>
          <td class="number figure">{row.margin_mm === null ? '–' : signed(row.margin_mm, 1)}</td>
          <td class="number figure">{row.dark_share ? share(row.dark_share) : '–'}</td>
          <td class={row.verdict} title={row.why_not}
            >{COVERAGE[row.verdict].sign}
            {row.dark_corners.length && row.dark_corners.length < 4
              ? `${row.dark_corners.join(', ')} dark`
              : COVERAGE[row.verdict].words}{row.why_not ? `: ${row.why_not}` : ''}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .grid {
    max-height: 480px;
    overflow: auto;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--ground);
  }
  .pick {
    cursor: pointer;
  }
  .pick:hover {
    text-decoration: underline;
  }
  td.impossible {
    color: var(--ink-soft);
    max-width: 330px;
    white-space: normal;
  }
</style>
