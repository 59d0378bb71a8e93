<script lang="ts">
  import { scaleLog } from 'd3-scale'
  import { mm } from '../../lib/format'
  import type { BenchView, FormatPlace, Lens, Package } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'

  interface Props {
    view: BenchView
    lens: Lens
    place: FormatPlace
    places: Map<number, FormatPlace>
    package: Package
    onformat: (formatId: number) => void
    onlens: (lensId: number) => void
  }
  let { view, lens, place, places, package: equipment, onformat, onlens }: Props = $props()

  let width = $state(700)
  const LEFT = 8
  const RIGHT = 10
  const names = $derived(new Map(equipment.lens_sets.flatMap((s) => s.lenses.map((l) => [l.id, l.name]))))

  /** This lens in every format: one mark for each effective focal length. */
  const formats = $derived.by(() => {
    type Mark = { id: number; at: number; verdict: keyof typeof COVERAGE; names: string[]; chosen: boolean }
    const marks: Record<string, Mark> = {}
    for (const row of view.rows) {
      const at = row.answer.effective_focal_mm
      if (at == null || lens.projection !== 'rectilinear') continue
      const verdict = row.mounts ? row.verdict : ('impossible' as const)
      const mark = (marks[`${mm(at)} ${verdict}`] ??= {
        id: row.format_id,
        at,
        verdict,
        names: [],
        chosen: false,
      })
      mark.names.push(places.get(row.format_id)?.format.name ?? '')
      if (row.format_id === place.format.id) Object.assign(mark, { id: row.format_id, chosen: true })
    }
    return Object.values(marks)
  })
  /** Every lens in this format. */
  const lenses = $derived(
    view.kit.flatMap((k) =>
      k.effective_mm === null || k.verdict === 'impossible'
        ? []
        : [{ ...k, at: k.effective_mm, chosen: k.lens_id === lens.id }],
    ),
  )
  const all = $derived([
    ...formats.map((f) => f.at),
    ...lenses.map((l) => l.effective_long_mm ?? l.at),
    ...lenses.map((l) => l.at),
  ])
  const x = $derived(
    scaleLog()
      .domain([Math.min(...all, 20) / 1.1, Math.max(...all, 60) * 1.1])
      .range([LEFT, width - RIGHT]),
  )
  const TICKS = [6, 8, 10, 12, 16, 20, 25, 32, 40, 50, 65, 85, 100, 135, 180, 250, 350, 500, 700, 1000]
  const ticks = $derived(TICKS.filter((t) => t >= (x.domain()[0] ?? 0) && t <= (x.domain()[1] ?? 0)))
</script>

<div class="ladder" bind:clientWidth={width}>
  <p class="soft">
    <span>above: {lens.name} in every format</span><span>below: every lens in {place.format.name}</span><span
      >effective mm, logarithmic; click to set</span
    >
  </p>
  <svg {width} height="66" role="group" aria-label="Ladder of the lens and of the format">
    {#each ticks as t (t)}
      <line class="tick" x1={x(t)} x2={x(t)} y1="2" y2="52" />
      <text class="figure" x={x(t)} y="63" text-anchor="middle">{t}</text>
    {/each}
    <line class="rail" x1={LEFT} x2={width - RIGHT} y1="14" y2="14" />
    <line class="rail" x1={LEFT} x2={width - RIGHT} y1="40" y2="40" />
    {#each formats as f (f.id)}
      <!-- The same is chosen in the ladder of formats by keyboard. -->
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <rect
        class="mark {f.verdict}"
        class:chosen={f.chosen}
        data-format-mark={f.id}
        x={x(f.at) - 2.5}
        y="5"
        width="5"
        height="18"
        onclick={() => onformat(f.id)}
        ><title>{mm(f.at)} mm {COVERAGE[f.verdict].words}: {f.names.join(', ')}</title></rect
      >
    {/each}
    {#each lenses as l (l.lens_id)}
      <!-- The same is chosen in the list of lenses by keyboard. -->
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <rect
        class="mark {l.verdict}"
        class:chosen={l.chosen}
        data-lens-mark={l.lens_id}
        x={x(l.at) - 2}
        y={l.effective_long_mm === null ? 31 : 37}
        width={l.effective_long_mm === null ? 4 : Math.max(x(l.effective_long_mm) - x(l.at), 4)}
        height={l.effective_long_mm === null ? 18 : 6}
        onclick={() => onlens(l.lens_id)}
        ><title
          >{names.get(l.lens_id)}: {mm(l.at)}{l.effective_long_mm === null
            ? ''
            : `–${mm(l.effective_long_mm)}`} mm, {COVERAGE[l.verdict].words}</title
        ></rect
      >
    {/each}
  </svg>
</div>

<style>
  .ladder {
    flex: 1 1 420px;
    min-width: 0;
    overflow: hidden;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.2rem;
    font-size: 12.5px;
  }
  text {
    font-size: 12px;
    fill: var(--ink-soft);
  }
  .tick,
  .rail {
    stroke: var(--line-strong);
    opacity: 0.5;
  }
  .mark {
    fill: var(--ink);
    stroke: transparent;
    stroke-width: 4;
    cursor: pointer;
    pointer-events: all;
  }
  .mark.marginal,
  .mark.unknown {
    fill: var(--warn);
  }
  .mark.short {
    fill: none;
    stroke: var(--bad);
    stroke-width: 1.4;
  }
  .mark.impossible {
    fill: none;
    stroke: var(--ink-soft);
    stroke-width: 1;
    stroke-dasharray: 2 2;
  }
  .mark.chosen {
    fill: var(--accent);
    stroke: var(--accent);
    stroke-width: 2;
  }
</style>
