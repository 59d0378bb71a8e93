<script lang="ts">
  import type { MountDocument } from '../lib/types'
  import GridCell from './GridCell.svelte'

  interface Props {
    mounts: MountDocument[]
    chosen: string | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onchoose: (key: string) => void
    onkeydown: (event: KeyboardEvent) => void
  }
  let { mounts, chosen, fault, onset, onchoose, onkeydown }: Props = $props()
  /** The longest flange distance sets the scale of the drawing beside each row. */
  const longest = $derived(Math.max(...mounts.map((m) => Number(m.flange_mm) || 0), 20))
  const PX = 150
</script>

<div class="grid">
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <table {onkeydown}>
    <caption class="sr-only">Mounts</caption>
    <thead>
      <tr>
        <th scope="col">Mount</th>
        <th scope="col" class="number" title="From the mount's flange to the sensor plane">Flange mm</th>
        <th scope="col" class="number" title="Clear opening">Throat mm</th>
        <th scope="col">Note</th>
        <th scope="col" class="computed">Flange to sensor, to scale</th>
      </tr>
    </thead>
    <tbody>
      {#each mounts as mount, i (mount.key)}
        {@const at = `mounts[${i}]`}
        {@const key = mount.key ?? ''}
        {@const cell = (field: string, label: string) => ({
          label: `${label} of ${mount.name}`,
          fault: fault(`${at}.${field}`),
          column: `mount ${field}`,
          oninput: (value: unknown) => onset(`${at}.${field}`, value),
          onfocus: () => onchoose(key),
        })}
        {@const flange = Number(mount.flange_mm) || 0}
        <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
          <td class="first"
            ><GridCell {...cell('name', 'Name')} kind="text" value={mount.name} size={10} /></td
          >
          <td class="number"
            ><GridCell
              {...cell('flange_mm', 'Flange distance')}
              kind="number"
              value={mount.flange_mm}
              placeholder="?"
            /></td
          >
          <td class="number"
            ><GridCell
              {...cell('throat_mm', 'Throat')}
              kind="number"
              value={mount.throat_mm}
              placeholder="?"
            /></td
          >
          <td><GridCell {...cell('note', 'Note')} kind="text" value={mount.note} size={40} /></td>
          <td class="computed">
            {#if flange > 0}
              <svg
                width={PX + 14}
                height="24"
                role="img"
                aria-label="{mount.name}: {flange} mm from flange to sensor"
              >
                <line class="sensor" x1={PX + 4} x2={PX + 4} y1="3" y2="21" />
                <line class="way" x1={PX + 4 - (flange / longest) * PX} x2={PX + 4} y1="12" y2="12" />
                <line
                  class="flange"
                  x1={PX + 4 - (flange / longest) * PX}
                  x2={PX + 4 - (flange / longest) * PX}
                  y1="4"
                  y2="20"
                />
              </svg>
            {:else}<span class="soft">not stated: infinity cannot be checked</span>{/if}
          </td>
        </tr>
      {:else}
        <tr><td colspan="5" class="soft empty">No mount is described yet: add the first.</td></tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  svg {
    display: block;
  }
  .sensor {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .way {
    stroke: var(--light);
    stroke-dasharray: 4 3;
  }
  .flange {
    stroke: var(--accent);
    stroke-width: 2.5;
  }
</style>
