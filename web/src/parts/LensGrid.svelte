<script lang="ts">
  import { degrees, mm } from '../lib/format'
  import type { LensDocument, LensSetSheet } from '../lib/types'
  import GridCell from './GridCell.svelte'
  import { Windowed } from './windowed.svelte'

  interface Props {
    lenses: LensDocument[]
    sheet: LensSetSheet | null
    chosen: string | undefined
    fault: (path: string) => string | undefined
    /** Kind of a figure's own origin, or undefined. */
    origin: (key: string, field: string) => string | undefined
    onset: (path: string, value: unknown) => void
    onchoose: (key: string) => void
    onfigure: (key: string, field: string, label: string) => void
    onkeydown: (event: KeyboardEvent) => void
  }
  let { lenses, sheet, chosen, fault, origin, onset, onchoose, onfigure, onkeydown }: Props = $props()

  const figures = $derived(new Map(sheet?.lenses.map((f) => [f.key, f])))
  let body = $state<HTMLElement>()
  const view = new Windowed(
    () => lenses.length,
    () => body,
  )
  const range = $derived(view.range)
  const drawn = $derived(lenses.slice(range.from, range.to))
  // What lies above may grow and move the rows without any scrolling: look again whenever the page changes its height.
  $effect(() => {
    const observer = new ResizeObserver(() => view.look())
    observer.observe(document.body)
    return () => observer.disconnect()
  })
  const CLASSES = ['65 mm', 'full frame', 'Super 35', 'Super 16', '2/3 inch'] as const
  const LAWS = ['rectilinear', 'equidistant', 'equisolid', 'stereographic', 'orthographic'] as const
  const circle = (lens: LensDocument, range: number[] | null | undefined) =>
    lens.circle_by && range ? `${mm(range[0])}–${mm(range[1])}` : ''
</script>

<svelte:window onscroll={() => view.look()} onresize={() => view.look()} />
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<table {onkeydown} aria-rowcount={lenses.length}>
  <caption class="sr-only">Lenses of the set</caption>
  <thead>
    <tr>
      <th scope="col">Lens</th>
      <th scope="col" class="number" colspan="2" title="Focal length; a second one makes it a zoom">mm</th>
      <th scope="col" class="number" colspan="2" title="f-number, and at a zoom's long end">f</th>
      <th scope="col" class="number" colspan="2" title="T-stop, and at a zoom's long end">T</th>
      <th scope="col" class="number" title="Image circle, mm; a table is entered below">Circle</th>
      <th scope="col" class="number">Squeeze</th>
      <th scope="col" class="number" title="From the sensor plane, m">Close m</th>
      <th scope="col">Mount</th>
      <th scope="col">Made for</th>
      <th scope="col">Projection</th>
      <th scope="col" class="number computed" title="Horizontal, on the Super 35 width">Angle</th>
      <th scope="col" class="computed" title="By the angle on Super 35">View</th>
      <th scope="col" class="computed" title="The largest usual window that the circle covers">Covers</th>
      <th scope="col" class="computed">Check</th>
    </tr>
  </thead>
  <tbody bind:this={body}>
    {#if range.from > 0}<tr aria-hidden="true" style:height="{range.from * view.rowPx}px"></tr>{/if}
    {#each drawn as lens, n (lens.key)}
      {@const i = range.from + n}
      {@const at = `lenses[${i}]`}
      {@const key = lens.key ?? ''}
      {@const known = figures.get(key)}
      {@const cell = (field: string, label: string) => ({
        label: `${label} of ${lens.name}`,
        fault: fault(`${at}.${field}`),
        origin: origin(key, field),
        column: `lens ${field}`,
        oninput: (value: unknown) => onset(`${at}.${field}`, value),
        onfocus: () => {
          onchoose(key)
          onfigure(key, field, `${label} of ${lens.name}`)
        },
      })}
      <tr class:chosen={key === chosen} data-key={key} onclick={() => onchoose(key)}>
        <td class="first"><GridCell {...cell('name', 'Name')} kind="text" value={lens.name} size={16} /></td>
        <td
          ><GridCell {...cell('focal_mm', 'Focal length')} kind="number" value={lens.focal_mm} size={5} /></td
        >
        <td
          ><GridCell
            {...cell('focal_long_mm', 'Longest focal length')}
            kind="number"
            value={lens.focal_long_mm}
            size={4}
          /></td
        >
        <td><GridCell {...cell('f_number', 'f-number')} kind="number" value={lens.f_number} size={4} /></td>
        <td
          ><GridCell
            {...cell('f_number_long', 'f-number at the long end')}
            kind="number"
            value={lens.f_number_long}
            size={3}
          /></td
        >
        <td><GridCell {...cell('t_stop', 'T-stop')} kind="number" value={lens.t_stop} size={4} /></td>
        <td
          ><GridCell
            {...cell('t_stop_long', 'T-stop at the long end')}
            kind="number"
            value={lens.t_stop_long}
            size={3}
          /></td
        >
        <td
          >{#if lens.circle_by}<span class="figure along" title="A table along {lens.circle_by}: see below"
              >{circle(lens, known?.circle_mm)}</span
            >{:else}<GridCell
              {...cell('image_circle_mm', 'Image circle')}
              kind="number"
              value={lens.image_circle_mm}
              size={5}
            />{/if}</td
        >
        <td><GridCell {...cell('squeeze', 'Squeeze')} kind="number" value={lens.squeeze} size={4} /></td>
        <td
          ><GridCell
            {...cell('close_focus_m', 'Close focus')}
            kind="number"
            value={lens.close_focus_m}
            size={5}
          /></td
        >
        <td><GridCell {...cell('mount', 'Mount')} kind="text" value={lens.mount} size={5} /></td>
        <td
          ><select
            class="set"
            aria-label="Class of {lens.name}"
            value={lens.designed_for ?? ''}
            onchange={(event) => onset(`${at}.designed_for`, event.currentTarget.value || null)}
            ><option value="">not stated</option>{#each CLASSES as name (name)}<option>{name}</option
              >{/each}</select
          ></td
        >
        <td
          ><select
            class="set"
            aria-label="Projection of {lens.name}"
            value={lens.projection}
            onchange={(event) => onset(`${at}.projection`, event.currentTarget.value)}
            >{#each LAWS as name (name)}<option>{name}</option>{/each}</select
          ></td
        >
        <td class="number figure computed">{known?.angle_deg.map((a) => degrees(a)).join(' – ') ?? '–'}</td>
        <td class="computed">{known?.view_class ?? ''}</td>
        <td class="computed">{known?.circle_mm ? (known.covers ?? 'less than Super 16') : ''}</td>
        <td class="computed check" title={known?.notes.join(' ')}>{known?.notes.join(' ') ?? ''}</td>
      </tr>
    {:else}
      <tr><td colspan="17" class="soft empty">No lens in this set yet: add the first.</td></tr>
    {/each}
    {#if range.to < lenses.length}<tr
        aria-hidden="true"
        style:height="{(lenses.length - range.to) * view.rowPx}px"
      ></tr>{/if}
  </tbody>
</table>

<style>
  .along {
    font-size: 12.5px;
    color: var(--light);
  }
</style>
