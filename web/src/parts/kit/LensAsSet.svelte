<script lang="ts">
  import { aperture, mm } from '../../lib/format'
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
</script>

<div class="as-set">
  <label
    ><span class="soft">Lens</span>
    <select
      class="set"
      aria-label="Lens"
      value={String(ask.lens_id)}
      onchange={(event) =>
        onchange({
          lens_id: Number(event.currentTarget.value),
          focal_mm: null,
          stop: null,
          adapter_ids: null,
        })}
    >
      {#each equipment.lens_sets as set (set.id)}
        <optgroup label="{set.maker} {set.name}">
          {#each set.lenses as option (option.id)}<option value={String(option.id)}>{option.name}</option
            >{/each}
        </optgroup>
      {/each}
    </select></label
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
    <select
      class="set figure"
      aria-label="Stop"
      value={String(shown?.stop ?? '')}
      onchange={(event) => onchange({ stop: Number(event.currentTarget.value) })}
    >
      {#each [...new Set([...(shown?.stops ?? []), shown?.stop ?? 0])]
        .filter(Boolean)
        .toSorted((a, b) => a - b) as stop (stop)}
        <option value={String(stop)}>{shown?.marks}{aperture(stop)}</option>
      {/each}
    </select></label
  >
  <label
    ><span class="soft">mounted</span>
    <select
      class="set"
      aria-label="Adapter"
      value={way}
      onchange={(event) => {
        const text = event.currentTarget.value
        onchange({ adapter_ids: text === 'auto' ? null : text.split('.').filter(Boolean).map(Number) })
      }}
    >
      <option value="auto">the simplest way</option>
      <option value="">directly</option>
      {#each fitting as a (a.id)}<option value={String(a.id)}>{a.name}</option>{/each}
      {#if way !== 'auto' && way !== '' && !fitting.some((a) => String(a.id) === way)}<option value={way}
          >{equipment.adapters
            .filter((a) => ask.adapter_ids?.includes(a.id))
            .map((a) => a.name)
            .join(' + ')}</option
        >{/if}
    </select></label
  >
  <label
    ><span class="soft">in</span>
    <select
      class="set"
      aria-label="Recording format"
      value={String(ask.format_id)}
      onchange={(event) => onchange({ format_id: Number(event.currentTarget.value), adapter_ids: null })}
    >
      {#each equipment.bodies as body (body.id)}
        {#each body.modes as mode (mode.id)}
          <optgroup label="{body.name}, {mode.name}">
            {#each mode.formats as format (format.id)}<option value={String(format.id)}>{format.name}</option
              >{/each}
          </optgroup>
        {/each}
      {/each}
    </select></label
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
