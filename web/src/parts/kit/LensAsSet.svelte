<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { formatOptions, lensOptions, stopOptions, withChosen } from '../../lib/options'
  import { mm } from '../../lib/format'
  import type { CoverageAsk, CoverageView, Lens, Package } from '../../lib/types'

  interface Props {
    ask: CoverageAsk
    package: Package
    /** None when the link names one that is gone. */
    lens: Lens | undefined
    /** The lens as it was understood: clamped, with its stops. */
    shown: CoverageView['lens'] | null
    onchange: (part: Partial<CoverageAsk>) => void
  }
  let { ask, package: equipment, lens, shown, onchange }: Props = $props()
  const zoom = $derived(lens !== undefined && lens.focal_max_mm > lens.focal_min_mm)
  const way = $derived(ask.adapter_ids == null ? 'auto' : ask.adapter_ids.join('.'))
  const fitting = $derived(equipment.adapters.filter((a) => a.lens_mount === lens?.mount))
  const ways = $derived(
    withChosen(
      [
        { value: 'auto', label: 'the simplest way' },
        { value: '', label: 'directly' },
        ...fitting.map((a) => ({ value: String(a.id), label: a.name })),
      ],
      way,
      equipment.adapters
        .filter((a) => ask.adapter_ids?.includes(a.id))
        .map((a) => a.name)
        .join(' + '),
    ),
  )
</script>

<div class="as-set">
  <label
    ><span class="soft">Lens</span>
    <Choice
      label="Lens"
      search
      options={lensOptions(equipment.lens_sets)}
      value={ask.lens_id}
      onchange={(lens_id) => onchange({ lens_id, focal_mm: null, stop: null, adapter_ids: null })}
    /></label
  >
  {#if zoom && lens && shown}
    <label
      ><span class="soft">at</span>
      <input
        type="range"
        aria-label="Focal length"
        min={lens.focal_min_mm}
        max={lens.focal_max_mm}
        step="0.5"
        value={shown.focal_mm}
        oninput={(event) => onchange({ focal_mm: Number(event.currentTarget.value) })}
      />
      <span class="figure">{mm(shown.focal_mm)} mm</span></label
    >
  {/if}
  <label
    ><span class="soft">stop</span>
    <Choice
      label="Stop"
      figure
      options={shown ? stopOptions(shown) : []}
      value={shown?.stop ?? null}
      onchange={(stop) => onchange({ stop })}
    /></label
  >
  <label
    ><span class="soft">mounted</span>
    <Choice
      label="Adapter"
      options={ways}
      value={way}
      onchange={(chosen) =>
        onchange({ adapter_ids: chosen === 'auto' ? null : chosen.split('.').filter(Boolean).map(Number) })}
    /></label
  >
  <label
    ><span class="soft">in</span>
    <Choice
      label="Recording format"
      search
      options={formatOptions(equipment.bodies)}
      value={ask.format_id}
      onchange={(format_id) => onchange({ format_id, adapter_ids: null })}
    /></label
  >
  {#each shown?.notes ?? [] as note (note.text)}<span class="warn">{note.text}</span>{/each}
</div>

<style>
  .as-set {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1.2rem;
    font-size: 14.5px;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
  }
  input[type='range'] {
    width: 150px;
    accent-color: var(--accent);
  }
</style>
