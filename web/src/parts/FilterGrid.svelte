<script lang="ts">
  import type { FilterDocument } from '../lib/types'
  import GridCell from './GridCell.svelte'

  interface Props {
    filters: FilterDocument[]
    /** Density and factor as they are engraved, by the filter's key. */
    markings: Record<string, { density: number; factor: number }>
    chosen: string | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onchoose: (key: string) => void
    onkeydown: (event: KeyboardEvent) => void
  }
  let { filters, markings, chosen, fault, onset, onchoose, onkeydown }: Props = $props()
</script>

<div class="wide">
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <table {onkeydown}>
    <caption class="sr-only">ND filters</caption>
    <thead>
      <tr>
        <th scope="col">ND filter</th>
        <th scope="col" class="number">Takes, stops</th>
        <th scope="col" class="number">How many</th>
        <th scope="col" class="number">Density</th>
        <th scope="col" class="number">Factor</th>
      </tr>
    </thead>
    <tbody>
      {#each filters as filter, i (filter.key)}
        {@const at = `filters[${i}]`}
        {@const key = filter.key ?? ''}
        {@const cell = (field: string, label: string) => ({
          label: `${label} of ${filter.name}`,
          fault: fault(`${at}.${field}`),
          column: `filter ${field}`,
          oninput: (value: unknown) => onset(`${at}.${field}`, value),
          onfocus: () => onchoose(key),
        })}
        <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
          <td><GridCell {...cell('name', 'Name')} kind="text" value={filter.name} size={16} /></td>
          <td class="number"
            ><GridCell {...cell('stops', 'Stops')} kind="number" value={filter.stops} size={5} /></td
          >
          <td class="number"
            ><GridCell {...cell('count', 'Number')} kind="number" value={filter.count} size={3} /></td
          >
          <td class="number figure soft">{markings[key]?.density.toFixed(2) ?? '–'}</td>
          <td class="number figure soft">{markings[key] ? `ND${Math.round(markings[key].factor)}` : '–'}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .wide {
    min-width: 0;
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    font-size: 14px;
  }
  th,
  td {
    padding: 1px 14px 1px 0;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
    white-space: nowrap;
  }
  th {
    color: var(--ink-soft);
  }
  .number {
    text-align: right;
  }
  .chosen {
    background: var(--cell);
  }
</style>
