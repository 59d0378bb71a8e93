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
  const fault = (index: number, field: string) => faults[`document.sources[${index}].${field}`]
</script>

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
      <span
        ><span class="soft">camera</span><EntryField
          label="Letter of camera {i + 1}"
          kind="text"
          size={3}
          value={source.unit}
          fault={fault(i, 'unit')}
          oninput={(value) => set(i, { unit: String(value) })}
        /></span
      >
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
          options={[
            { value: 'udp', label: 'datagrams to a port' },
            { value: 'http', label: 'lines from an address' },
          ] as const}
          value={source.way ?? 'udp'}
          onchange={(way) => set(i, { way })}
        /></span
      >
      <span
        ><span class="soft">address</span><EntryField
          label="Address of camera {source.unit}"
          kind="text"
          size={12}
          value={source.host}
          fault={fault(i, 'host')}
          oninput={(value) => set(i, { host: String(value) })}
        /></span
      >
      <span
        ><span class="soft">port</span><EntryField
          label="Port of camera {source.unit}"
          kind="number"
          size={6}
          value={source.port}
          fault={fault(i, 'port')}
          oninput={(value) => set(i, { port: value as number })}
        /></span
      >
      {#if source.way === 'http'}<span
          ><span class="soft">path</span><EntryField
            label="Path of camera {source.unit}"
            kind="text"
            size={12}
            value={source.path ?? '/samples'}
            fault={fault(i, 'path')}
            oninput={(value) => set(i, { path: String(value) })}
          /></span
        >{/if}
      <span class="secret"
        ><span class="soft">{source.way === 'udp' ? 'goes by (sourceId)' : 'its word'}</span><EntryField
          label="{source.way === 'udp' ? 'Source' : 'Word'} of camera {source.unit}"
          kind="text"
          size={24}
          value={source.secret}
          fault={fault(i, 'secret')}
          oninput={(value) => set(i, { secret: String(value) })}
        /></span
      >
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
