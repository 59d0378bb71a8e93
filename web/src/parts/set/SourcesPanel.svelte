<script lang="ts">
  import type { CameraSource } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    sources: readonly CameraSource[]
    bodies: readonly string[]
    /** Faults by their fields, like `document.sources[0].host`. */
    faults: Record<string, string>
    saved: boolean
    signal: boolean
    onchange: (sources: CameraSource[]) => void
    onsignal: (on: boolean) => void
  }
  let { sources, bodies, faults, saved, signal, onchange, onsignal }: Props = $props()

  const set = (index: number, part: Partial<CameraSource>) =>
    onchange(sources.map((source, i) => (i === index ? { ...source, ...part } : source)))
  function add() {
    const free = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'].find((unit) =>
      sources.every((s) => s.unit !== unit),
    )
    const port = Math.max(45500, ...sources.map((s) => s.port)) + 1
    onchange([
      ...sources,
      {
        unit: free ?? String(sources.length + 1),
        body: bodies[0] ?? '',
        on: false,
        way: 'udp',
        host: '127.0.0.1',
        port,
        path: '/samples',
        secret: '',
      },
    ])
  }
  const WAYS = [
    { value: 'udp', label: 'datagrams to a port' },
    { value: 'http', label: 'lines from an address' },
  ] as const
</script>

{#snippet typed(
  i: number,
  field: 'unit' | 'host' | 'port' | 'path' | 'secret',
  title: string,
  label: string,
  size: number,
)}
  <span
    ><span class="soft">{title}</span><EntryField
      {label}
      kind={field === 'port' ? 'number' : 'text'}
      {size}
      value={sources[i]?.[field] ?? ''}
      fault={faults[`document.sources[${i}].${field}`]}
      oninput={(value) => set(i, { [field]: value })}
    /></span
  >
{/snippet}

<section class="panel" aria-label="Cameras that are listened to">
  <p>
    Cameras that speak OpenTrackIO are heard here: as datagrams that come to a port of this machine, or as
    lines that are fetched. Nothing is listened to until it is switched on. <span class="soft"
      >{saved ? 'saved' : 'not saved yet'}</span
    >
  </p>
  {#each sources as source, i (i)}
    <div class="source" role="group" aria-label="Camera {source.unit}">
      <label class="on"
        ><input
          type="checkbox"
          checked={source.on}
          onchange={(event) => set(i, { on: event.currentTarget.checked })}
        />
        <strong>{source.on ? 'listened to' : 'off'}</strong></label
      >
      {@render typed(i, 'unit', 'camera', `Letter of camera ${i + 1}`, 3)}
      <span
        ><span class="soft">body</span><Choice
          label="Body of camera {source.unit}"
          options={bodies.map((name) => ({ value: name, label: name }))}
          value={source.body}
          onchange={(body) => set(i, { body })}
        /></span
      >
      <span
        ><span class="soft">how</span><Choice
          label="How camera {source.unit} is heard"
          options={WAYS}
          value={source.way ?? 'udp'}
          onchange={(way) => set(i, { way })}
        /></span
      >
      {@render typed(i, 'host', 'address', `Address of camera ${source.unit}`, 12)}
      {@render typed(i, 'port', 'port', `Port of camera ${source.unit}`, 6)}
      {#if source.way === 'http'}
        {@render typed(i, 'path', 'path', `Path of camera ${source.unit}`, 12)}
        {@render typed(i, 'secret', 'its word', `Word of camera ${source.unit}`, 24)}
      {:else}
        {@render typed(i, 'secret', 'goes by (sourceId)', `Source of camera ${source.unit}`, 24)}
      {/if}
      <button
        class="knob"
        aria-label="Remove camera {source.unit}"
        onclick={() => onchange(sources.filter((_, k) => k !== i))}>Remove</button
      >
    </div>
  {:else}
    <p class="soft">No camera yet.</p>
  {/each}
  {#if faults.document || faults['document.sources']}<p class="fault">
      {faults.document ?? faults['document.sources']}
    </p>{/if}
  <p class="ways">
    <button class="knob" onclick={add}>Add a camera</button>
    <label class="on"
      ><input type="checkbox" checked={signal} onchange={(event) => onsignal(event.currentTarget.checked)} />
      Sound, and shake where the device can, when something begins to differ</label
    >
  </p>
</section>

<style>
  .source {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: end;
    padding: 6px 0;
    border-top: 1px solid var(--line);
  }
  .source > span {
    display: grid;
    font-size: 14px;
  }
  .source .soft {
    font-size: 13px;
  }
  .on {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
  }
</style>
