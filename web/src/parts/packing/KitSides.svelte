<script lang="ts">
  import { signed } from '../../lib/figures'
  import type { SideBySide } from '../../lib/types'

  interface Props {
    sides: SideBySide
    /** Only shots that one of them does not do. */
    alone: boolean
  }
  let { sides, alone }: Props = $props()

  const rows = $derived(sides.shots.filter((shot) => !alone || shot.does_first !== shot.does_second))
  const figure = (value: number | null, digits: number, unit: string) =>
    value === null ? '' : `${signed(value, digits, 0)}${unit}`
</script>

<div class="sides">
  {#each sides.told as line (line)}<p class="told-line">{line}</p>{/each}
  <table class="figures sum">
    <thead><tr><td></td><th scope="col">{sides.first}</th><th scope="col">{sides.second}</th></tr></thead>
    <tbody>
      {#each sides.figures as row (row.name)}
        <tr><th scope="row" class="soft">{row.name}</th><td>{row.first}</td><td>{row.second}</td></tr>
      {/each}
    </tbody>
  </table>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="wide" role="group" tabindex="0" aria-label="Shots with each">
    <table class="figures shots">
      <thead
        ><tr
          ><th scope="col">Shot</th><th scope="col">{sides.first}</th><th scope="col">{sides.second}</th><th
            scope="col"
            class="right"
            title="How much wider the second can open">stops</th
          ><th scope="col" class="right" title="How much more of the width the second blurs a far light"
            >blur</th
          ><th scope="col" class="right" title="Recorded pixels across for each of the first's">pixels</th><th
            scope="col">Because of</th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as shot (shot.key)}
          <tr>
            <th scope="row">{shot.name}</th>
            <td class="told" class:bad={!shot.does_first}>{shot.does_first ? '' : '✗ '}{shot.first}</td>
            <td class="told" class:bad={!shot.does_second}>{shot.does_second ? '' : '✗ '}{shot.second}</td>
            <td class="figure right">{figure(shot.stops, 1, '')}</td>
            <td class="figure right">{figure(shot.blur_percent, 2, ' %')}</td>
            <td class="figure right">{shot.pixels === null ? '' : `×${shot.pixels.toFixed(2)}`}</td>
            <td class="told">{shot.reason}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</div>

<style>
  .sides {
    display: grid;
    gap: 8px;
    font-size: 14px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .told-line {
    font-size: 15px;
  }
  .sum :is(td, th) {
    white-space: normal;
    vertical-align: top;
  }
  .right {
    text-align: right;
  }
  .figures .told {
    white-space: normal;
    min-width: 11rem;
    line-height: 1.25;
  }
  .figures th {
    vertical-align: top;
  }
  .shots td {
    vertical-align: top;
  }
</style>
