<script lang="ts">
  import { highestRate } from '../lib/format'
  import type { BodySheet, ModeDocument } from '../lib/types'
  import GridCell from './GridCell.svelte'
  import { SAMPLINGS, samplingChoice } from './sampling'

  interface Props {
    modes: ModeDocument[]
    sheet: BodySheet | null
    chosen: string | undefined
    fault: (path: string) => string | undefined
    /** Kind of a figure's own origin, or undefined. */
    origin: (key: string, field: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onchoose: (key: string) => void
    onfigure: (key: string, field: string, label: string) => void
    onkeydown: (event: KeyboardEvent) => void
  }
  let { modes, sheet, chosen, fault, origin, onset, onchoose, onfigure, onkeydown }: Props = $props()

  const figures = $derived(new Map(sheet?.modes.map((m) => [m.key, m])))

  function setUnit(mode: ModeDocument, at: string, unit: string) {
    const known = figures.get(mode.key ?? '')
    if (!known) return
    const inMm = unit === 'mm'
    const { width, height } = known.rect
    onset(at, {
      ...mode,
      window: inMm ? null : known.photosites,
      window_mm: inMm ? [Number(width.toFixed(3)), Number(height.toFixed(3))] : null,
    })
  }

  function setSampling(mode: ModeDocument, at: string, axis: number, label: string) {
    const choice = SAMPLINGS.find((s) => s.label === label)
    if (!choice) return
    const sampling = [...(mode.sampling ?? [1, 1])]
    const methods = [...(mode.methods ?? ['full', 'full'])]
    sampling[axis] = choice.step
    methods[axis] = choice.method
    onset(at, { ...mode, sampling, methods })
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<table {onkeydown}>
  <caption class="sr-only">Scan modes</caption>
  <thead>
    <tr>
      <th scope="col">Scan mode</th>
      <th scope="col" colspan="3">Window</th>
      <th scope="col" colspan="2" title="From the sensor's centre, photosites; right and down">Offset</th>
      <th scope="col" colspan="2" title="Across, and down">Sampling</th>
      <th scope="col" class="number" title="Time to read one row, µs">Row µs</th>
      <th scope="col" class="number" title="Time that a scan takes besides its rows, µs">Overhead µs</th>
      <th scope="col" class="number" title="The maker's limit on the scan rate">Stated fps</th>
      <th scope="col" class="number computed" title="On the sensor">mm</th>
      <th scope="col" class="number computed" title="First to last row">Readout</th>
      <th scope="col" class="number computed" title="Scans a second that the readout allows">Scan fps</th>
    </tr>
  </thead>
  <tbody>
    {#each modes as mode, i (mode.key)}
      {@const at = `modes[${i}]`}
      {@const key = mode.key ?? ''}
      {@const known = figures.get(key)}
      {@const window = mode.window_mm ? 'window_mm' : 'window'}
      {@const cell = (field: string, label: string) => ({
        label: `${label} of ${mode.name}`,
        fault: fault(`${at}.${field}`),
        origin: origin(key, field.replace(/\[\d\]$/, '')),
        column: `mode ${field.replace('window_mm', 'window')}`,
        oninput: (value: unknown) => onset(`${at}.${field}`, value),
        onfocus: () => {
          onchoose(key)
          onfigure(key, field.replace(/\[\d\]$/, ''), `${label} of ${mode.name}`)
        },
      })}
      <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
        <td><GridCell {...cell('name', 'Name')} kind="text" value={mode.name} size={14} /></td>
        <td><GridCell {...cell(`${window}[0]`, 'Window width')} kind="number" value={mode[window]?.[0]} /></td
        >
        <td
          ><GridCell {...cell(`${window}[1]`, 'Window height')} kind="number" value={mode[window]?.[1]} /></td
        >
        <td
          ><select
            class="set"
            aria-label="Unit of the window of {mode.name}"
            value={mode.window_mm ? 'mm' : 'px'}
            onchange={(event) => setUnit(mode, at, event.currentTarget.value)}
            ><option value="px">sites</option><option value="mm">mm</option></select
          ></td
        >
        <td
          ><GridCell
            {...cell('offset[0]', 'Offset across')}
            kind="number"
            value={mode.offset?.[0]}
            size={4}
          /></td
        >
        <td
          ><GridCell
            {...cell('offset[1]', 'Offset down')}
            kind="number"
            value={mode.offset?.[1]}
            size={4}
          /></td
        >
        {#each [0, 1] as axis (axis)}
          {@const now = samplingChoice(mode.sampling?.[axis] ?? 1, mode.methods?.[axis] ?? 'full')}
          <td
            ><select
              class="set"
              aria-label="Sampling {axis ? 'down' : 'across'} of {mode.name}"
              value={now.label}
              onchange={(event) => setSampling(mode, at, axis, event.currentTarget.value)}
            >
              {#each SAMPLINGS as { label } (label)}<option value={label}>{label}</option>{/each}
              {#if !SAMPLINGS.some((s) => s.label === now.label)}<option value={now.label}>{now.label}</option
                >{/if}
            </select></td
          >
        {/each}
        <td class="number"
          ><GridCell {...cell('row_time_us', 'Row time')} kind="number" value={mode.row_time_us} /></td
        >
        <td class="number"
          ><GridCell {...cell('overhead_us', 'Overhead')} kind="number" value={mode.overhead_us} /></td
        >
        <td class="number"
          ><GridCell
            {...cell('max_fps', 'Stated limit')}
            kind="number"
            value={mode.max_fps}
            placeholder="none"
          /></td
        >
        <td class="number figure computed"
          >{known ? `${known.rect.width.toFixed(2)} × ${known.rect.height.toFixed(2)}` : '–'}</td
        >
        <td class="number figure computed"
          >{known?.readout_ms == null ? '–' : `${known.readout_ms.toFixed(1)} ms`}</td
        >
        <td class="number figure computed">{highestRate(known?.scan_fps)}</td>
      </tr>
    {:else}
      <tr><td colspan="14" class="soft empty">No scan mode yet: add the first.</td></tr>
    {/each}
  </tbody>
</table>
