<script lang="ts">
  import type { AdapterDocument } from '../lib/types'
  import GridCell from './GridCell.svelte'

  interface Props {
    adapters: AdapterDocument[]
    /** Names of the mounts that are described. */
    mounts: string[]
    /** What looks wrong, by the adapter's key. */
    notes: Record<string, string[]>
    chosen: string | undefined
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onchoose: (key: string) => void
    onkeydown: (event: KeyboardEvent) => void
  }
  let { adapters, mounts, notes, chosen, fault, onset, onchoose, onkeydown }: Props = $props()
  const CLASSES = ['65 mm', 'full frame', 'Super 35', 'Super 16', '2/3 inch'] as const

  function toggle(adapter: AdapterDocument, at: string, name: (typeof CLASSES)[number], on: boolean) {
    const others = (adapter.classes ?? []).filter((c) => c !== name)
    onset(
      `${at}.classes`,
      CLASSES.filter((c) => (c === name ? on : others.includes(c))),
    )
  }
</script>

{#snippet mountChoice(value: string, label: string, set: (name: string) => void)}
  <select class="set" aria-label={label} {value} onchange={(event) => set(event.currentTarget.value)}>
    {#each [...new Set([...mounts, value])] as name (name)}<option>{name}</option>{/each}
  </select>
{/snippet}

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<table {onkeydown}>
  <caption class="sr-only">Adapters</caption>
  <thead>
    <tr>
      <th scope="col">Adapter</th>
      <th scope="col">Lens side</th>
      <th scope="col">Body side</th>
      <th scope="col" class="number" title="Below 1 a reducer, above 1 an extender">Magnifies</th>
      <th scope="col">Glass</th>
      <th scope="col" class="number" title="Share of the light that comes through">Passes light</th>
      <th scope="col">Iris</th>
      <th scope="col">Lens data</th>
      <th scope="col" title="Classes of lenses that it is made for; any when none is chosen"
        >Made for lenses of</th
      >
      <th scope="col" class="computed">Check</th>
    </tr>
  </thead>
  <tbody>
    {#each adapters as adapter, i (adapter.key)}
      {@const at = `adapters[${i}]`}
      {@const key = adapter.key ?? ''}
      {@const cell = (field: string, label: string) => ({
        label: `${label} of ${adapter.name}`,
        fault: fault(`${at}.${field}`),
        column: `adapter ${field}`,
        oninput: (value: unknown) => onset(`${at}.${field}`, value),
        onfocus: () => onchoose(key),
      })}
      {@const whole = fault(at)}
      <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
        <td class="first"
          ><GridCell {...cell('name', 'Name')} kind="text" value={adapter.name} size={24} /></td
        >
        <td
          >{@render mountChoice(adapter.lens_mount, `Lens side of ${adapter.name}`, (name) =>
            onset(`${at}.lens_mount`, name),
          )}</td
        >
        <td
          >{@render mountChoice(adapter.body_mount, `Body side of ${adapter.name}`, (name) =>
            onset(`${at}.body_mount`, name),
          )}</td
        >
        <td class="number"
          ><GridCell
            {...cell('magnification', 'Magnification')}
            kind="number"
            value={adapter.magnification}
            size={5}
          /></td
        >
        <td
          ><input
            type="checkbox"
            aria-label="{adapter.name} has glass"
            checked={adapter.glass}
            onchange={(event) => onset(`${at}.glass`, event.currentTarget.checked)}
          /></td
        >
        <td class="number"
          ><GridCell
            {...cell('transmission', 'Transmission')}
            kind="number"
            value={adapter.transmission}
            size={5}
          /></td
        >
        <td
          ><label
            ><input
              type="checkbox"
              aria-label="{adapter.name} passes iris control"
              checked={adapter.passes_iris}
              onchange={(event) => onset(`${at}.passes_iris`, event.currentTarget.checked)}
            /> passes</label
          ></td
        >
        <td
          ><label
            ><input
              type="checkbox"
              aria-label="{adapter.name} passes lens data"
              checked={adapter.passes_data}
              onchange={(event) => onset(`${at}.passes_data`, event.currentTarget.checked)}
            /> passes</label
          ></td
        >
        <td class="classes"
          >{#each CLASSES as name (name)}<label
              ><input
                type="checkbox"
                aria-label="{adapter.name} takes {name} lenses"
                checked={(adapter.classes ?? []).includes(name)}
                onchange={(event) => toggle(adapter, at, name, event.currentTarget.checked)}
              />{name}</label
            >{/each}</td
        >
        <td
          class="computed told"
          class:bad={whole !== undefined || notes[key]?.some((n) => n.startsWith('Impossible'))}
          title={whole ?? notes[key]?.join(' ')}>{whole ?? notes[key]?.join(' ') ?? ''}</td
        >
      </tr>
    {:else}
      <tr><td colspan="10" class="soft empty">No adapter yet: add the first.</td></tr>
    {/each}
  </tbody>
</table>

<style>
  .classes {
    font-size: 12.5px;
  }
  .classes label {
    margin-right: 0.5rem;
  }
  .classes input {
    margin-right: 0.15rem;
  }
  td.told {
    min-width: 200px;
    max-width: 230px;
    white-space: normal;
    font-size: 12.5px;
  }
  td.bad {
    color: var(--bad);
  }
</style>
