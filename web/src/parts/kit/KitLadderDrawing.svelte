<script lang="ts">
  import { scaleLog } from 'd3-scale'
  import type { KitLadder } from '../../lib/types'
  import LensClasses from './LensClasses.svelte'
  import { against, TICKS, words } from './rungs'

  interface Props {
    ladder: KitLadder
    /** Look at one picture alone, by its formats; none: at all. */
    ononly: (formatIds: number[] | null) => void
  }
  let { ladder, ononly }: Props = $props()

  let shown = $state(1000)
  /** On a narrow screen the drawing keeps a width at which marks can be told apart, and is moved sideways. */
  const width = $derived(Math.max(shown, 640))
  const LEFT = 190
  const RIGHT = 20
  const TOP = 40
  const ROW = 19
  const height = $derived(TOP + Math.max(ladder.pictures.length, 1) * ROW + 26)

  const ends = $derived(ladder.rungs.flatMap((r) => [r.effective_mm, r.effective_long_mm ?? r.effective_mm]))
  const low = $derived(Math.min(...ends, 20) / 1.12)
  const high = $derived(Math.max(...ends, 100) * 1.12)
  const x = $derived(
    scaleLog()
      .domain([low, high])
      .range([LEFT, width - RIGHT]),
  )
  const ticks = $derived(TICKS.filter((t) => t >= low && t <= high))
  const rows = $derived(new Map(ladder.pictures.map((p, i) => [p.format_id, TOP + i * ROW + ROW / 2])))
  const classes = $derived(
    ladder.classes.map((c) => ({
      ...c,
      from: Math.max(x(Math.max(c.from_mm ?? low, low)), LEFT),
      to: Math.min(x(Math.min(c.to_mm ?? high, high)), width - RIGHT),
    })),
  )
  const needy = $derived(ladder.pictures.filter((p) => p.needs.length))
  /** The mark under the pointer or the keyboard. */
  let at = $state<number | null>(null)
  const lit = $derived(at === null ? undefined : ladder.rungs[at])
  function look(event: Event) {
    const mark = event.target instanceof Element ? event.target.closest<SVGElement>('[data-i]') : null
    if (mark) at = Number(mark.dataset.i)
  }
  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
    if (!by) return
    event.preventDefault()
    const order = ladder.rungs.map((r, i) => ({ i, mm: r.effective_mm })).toSorted((a, b) => a.mm - b.mm)
    const now = order.findIndex((o) => o.i === at)
    at = order[Math.max(0, Math.min(order.length - 1, now + by))]?.i ?? null
  }
</script>

<figure class="drawing">
  <figcaption>
    Effective focal length of every lens in every picture
    <span class="soft"
      >· mm against {against(ladder)}, logarithmic: equal steps are equal changes of field</span
    >
  </figcaption>
  <p class="told" aria-live="polite">
    {#if lit}<strong>{words(lit)}</strong>
      <span class="soft"
        >in {ladder.pictures.find((p) => p.format_id === lit?.format_id)?.names.join(', ')}</span
      >{:else}<span class="soft"
        >A bar for each lens, longer ones for zooms; hollow: through a reducer or extender. Choose a picture's
        name to see it alone.</span
      >{/if}
  </p>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="canvas own"
    bind:clientWidth={shown}
    tabindex="0"
    role="group"
    aria-label="The ladder: arrow keys go from mark to mark"
    onpointerover={look}
    {onkeydown}
  >
    <svg {width} {height} role="group" aria-label={ladder.words.join(' ')}>
      <LensClasses {classes} top={TOP} {height} />
      {#each ladder.gaps as gap (gap.from_mm)}
        <rect
          class="gap"
          x={x(gap.from_mm)}
          y={TOP - 18}
          width={x(gap.to_mm) - x(gap.from_mm)}
          height={height - TOP - 8}
        />
      {/each}
      {#each ticks as t (t)}
        <line class="tick" x1={x(t)} x2={x(t)} y1={TOP - 4} y2={height - 24} />
        <text class="figure" x={x(t)} y={height - 10} text-anchor="middle">{t}</text>
      {/each}
      {#each ladder.pictures as p (p.format_id)}
        {@const y = rows.get(p.format_id) ?? 0}
        <line class="rail" x1={LEFT} x2={width - RIGHT} y1={y} y2={y} />
        <text
          class="row"
          x="6"
          y={y + 4}
          role="button"
          tabindex="0"
          onclick={() => ononly(ladder.pictures.length > 1 ? p.format_ids : null)}
          onkeydown={(event) =>
            event.key === 'Enter' && ononly(ladder.pictures.length > 1 ? p.format_ids : null)}
          >{p.names[0]}{p.names.length > 1 ? ` +${p.names.length - 1}` : ''}
          <tspan class="body">{p.body}{p.needs.length ? ' *' : ''}</tspan><title
            >{p.names.join(', ')} ({p.mode}){#each p.needs as need (need)}; {need}{/each}</title
          ></text
        >
      {/each}
      {#each ladder.rungs as r, i (i)}
        {@const y = rows.get(r.format_id) ?? 0}
        {@const to = r.effective_long_mm}
        {@const [wide, high] = to === null ? [3.2, 14] : [Math.max(x(to) - x(r.effective_mm), 2), 6]}
        <rect
          class={to === null ? `prime ${r.verdict}` : 'zoom'}
          class:hollow={r.magnification !== 1}
          class:lit={i === at}
          data-i={i}
          x={x(r.effective_mm) - (to === null ? wide / 2 : 0)}
          y={y - high / 2}
          width={wide}
          height={high}
        />
      {/each}
    </svg>
  </div>
  {#if needy.length}<p class="soft told">
      * {#each needy as p, i (p.format_id)}{i ? '; ' : ''}{p.names[0]} of {p.body}
        {p.needs.join(', ')}{/each}.
    </p>{/if}
</figure>

<style>
  .told {
    padding: 3px 10px;
    font-size: 13.5px;
  }
  strong {
    color: var(--accent);
  }
  .canvas {
    overflow-x: auto;
  }
  .row {
    cursor: pointer;
  }
  .row:hover {
    fill: var(--accent);
  }
  .body {
    fill: var(--ink-soft);
    opacity: 0.75;
  }
  .gap {
    fill: color-mix(in srgb, var(--bad) 14%, transparent);
    stroke: var(--bad);
    stroke-dasharray: 4 3;
  }
  .tick,
  .rail {
    stroke: var(--line);
    opacity: 0.7;
  }
  .prime {
    fill: var(--ink);
    stroke: var(--ink);
  }
  .prime.marginal,
  .prime.unknown {
    fill: var(--warn);
    stroke: var(--warn);
  }
  .zoom {
    fill: var(--accent-fill);
    stroke: var(--accent);
  }
  .hollow {
    fill: var(--panel);
  }
  .lit {
    fill: var(--accent);
    stroke: var(--accent);
    stroke-width: 3;
  }
</style>
