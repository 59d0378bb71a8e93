<script lang="ts">
  import { megabytes } from '../lib/format'
  import type { BodySheet, FormatDocument } from '../lib/types'
  import GridCell from './GridCell.svelte'
  import { Windowed } from './windowed.svelte'

  interface Props {
    formats: FormatDocument[]
    /** Path of the scan mode that they belong to. */
    path: string
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
  let { formats, path, sheet, chosen, fault, origin, onset, onchoose, onfigure, onkeydown }: Props = $props()

  const figures = $derived(new Map(sheet?.formats.map((f) => [f.key, f])))
  let body = $state<HTMLElement>()
  const view = new Windowed(
    () => formats.length,
    () => body,
  )
  const range = $derived(view.range)
  const drawn = $derived(formats.slice(range.from, range.to))
  // What lies above may grow and move the rows without any scrolling: look again whenever the page changes its height.
  $effect(() => {
    const observer = new ResizeObserver(() => view.look())
    observer.observe(document.body)
    return () => observer.disconnect()
  })
  const SAMPLES = ['raw', '4:2:0', '4:2:2', '4:4:4'] as const
</script>

<svelte:window onscroll={() => view.look()} onresize={() => view.look()} />
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<table {onkeydown} aria-rowcount={formats.length}>
  <caption class="sr-only">Recording formats of the scan mode</caption>
  <thead>
    <tr>
      <th scope="col">Recording format</th>
      <th scope="col" colspan="2" class="number">Raster</th>
      <th scope="col" title="The window scaled to the raster, or photosite for pixel from its centre"
        >Mapping</th
      >
      <th scope="col">Codec</th>
      <th scope="col" class="number">Bits</th>
      <th scope="col">Samples</th>
      <th scope="col" class="number" title="Compression, as a ratio">Compr.</th>
      <th scope="col" class="number" title="Stated bit rate, Mb/s">Mb/s</th>
      <th
        scope="col"
        class="number"
        title="Frame rate at which it is stated and with which it grows; empty: the same at every rate"
        >at fps</th
      >
      <th scope="col">Raw</th>
      <th scope="col" title="Interlaced">Int.</th>
      <th scope="col">Rates</th>
      <th scope="col" class="number" title="The codec's own limit">Codec fps</th>
      <th scope="col" class="number computed" title="What is recorded, on the sensor">mm</th>
      <th scope="col" class="number computed" title="Samples for each pixel, across">Samples/px</th>
      <th
        scope="col"
        class="number computed"
        title="Highest rate that can be chosen; in brackets what else limits it">Highest rate</th
      >
      <th scope="col" class="computed">bound by</th>
      <th scope="col" class="number computed" title="Data rate at the highest usable rate">MB/s</th>
      <th scope="col" class="computed">Check</th>
    </tr>
  </thead>
  <tbody bind:this={body}>
    {#if range.from > 0}<tr aria-hidden="true" style:height="{range.from * view.rowPx}px"></tr>{/if}
    {#each drawn as f, n (f.key)}
      {@const j = range.from + n}
      {@const at = `${path}.formats[${j}]`}
      {@const key = f.key ?? ''}
      {@const known = figures.get(key)}
      {@const cell = (field: string, label: string) => ({
        label: `${label} of ${f.name}`,
        fault: fault(`${at}.${field}`),
        origin: origin(key, field.replace(/\[\d\]$/, '')),
        column: `format ${field}`,
        oninput: (value: unknown) => onset(`${at}.${field}`, value),
        onfocus: () => {
          onchoose(key)
          onfigure(key, field.replace(/\[\d\]$/, ''), `${label} of ${f.name}`)
        },
      })}
      <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
        <td class="first"><GridCell {...cell('name', 'Name')} kind="text" value={f.name} size={16} /></td>
        <td><GridCell {...cell('raster[0]', 'Raster width')} kind="number" value={f.raster[0]} size={5} /></td
        >
        <td
          ><GridCell {...cell('raster[1]', 'Raster height')} kind="number" value={f.raster[1]} size={5} /></td
        >
        <td
          ><select
            class="set"
            aria-label="Mapping of {f.name}"
            value={f.map}
            onchange={(event) => onset(`${at}.map`, event.currentTarget.value)}
            ><option value="scale">scaled</option><option value="crop">cropped</option></select
          ></td
        >
        <td><GridCell {...cell('codec', 'Codec')} kind="text" value={f.codec} size={11} /></td>
        <td><GridCell {...cell('bits', 'Bits')} kind="number" value={f.bits} size={3} /></td>
        <td
          ><select
            class="set"
            aria-label="Samples of {f.name}"
            value={f.samples}
            onchange={(event) => onset(`${at}.samples`, event.currentTarget.value)}
            >{#each SAMPLES as samples (samples)}<option value={samples}>{samples}</option>{/each}</select
          ></td
        >
        <td
          ><GridCell
            {...cell('compression', 'Compression')}
            kind="number"
            value={f.compression}
            size={4}
          /></td
        >
        <td><GridCell {...cell('megabits', 'Bit rate')} kind="number" value={f.megabits} size={5} /></td>
        <td
          ><GridCell
            {...cell('megabits_at_fps', 'Rate of the bit rate')}
            kind="number"
            value={f.megabits_at_fps}
            size={4}
          /></td
        >
        <td
          ><input
            type="checkbox"
            aria-label="{f.name} is raw"
            checked={f.raw}
            onchange={(event) => {
              const raw = event.currentTarget.checked
              // Raw carries raw samples, and nothing else does by itself.
              onset(at, { ...f, raw, samples: raw ? 'raw' : f.samples === 'raw' ? '4:2:2' : f.samples })
            }}
          /></td
        >
        <td
          ><input
            type="checkbox"
            aria-label="{f.name} is interlaced"
            checked={f.interlaced}
            onchange={(event) => onset(`${at}.interlaced`, event.currentTarget.checked)}
          /></td
        >
        <td
          ><GridCell
            {...cell('rates', 'Rates')}
            kind="rates"
            value={f.rates}
            size={17}
            placeholder="23.976, 25, 1-60"
          /></td
        >
        <td
          ><GridCell
            {...cell('highest_fps', 'Codec limit')}
            kind="number"
            value={f.highest_fps}
            size={5}
            placeholder="none"
          /></td
        >
        <td class="number figure computed"
          >{known ? `${known.width_mm.toFixed(2)} × ${known.height_mm.toFixed(2)}` : '–'}</td
        >
        <td class="number figure computed">{known ? `${known.oversampling[0]?.toFixed(2)}×` : '–'}</td>
        <td class="number figure computed">{known?.rate_text ?? '–'}</td>
        <td class="computed soft">{known?.limited_by ?? ''}</td>
        <td class="number figure computed">{megabytes(known?.mb_s)}</td>
        <td class="computed check" title={known?.notes.join(' ')}>{known?.notes.join(' ') ?? ''}</td>
      </tr>
    {:else}
      <tr
        ><td colspan="20" class="soft empty">No recording format in this scan mode yet: add the first.</td
        ></tr
      >
    {/each}
    {#if range.to < formats.length}<tr
        aria-hidden="true"
        style:height="{(formats.length - range.to) * view.rowPx}px"
      ></tr>{/if}
  </tbody>
</table>
