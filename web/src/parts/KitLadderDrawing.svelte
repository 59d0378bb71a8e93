<script lang="ts">
  import { scaleLog } from 'd3-scale'
  import { degrees, mm } from '../lib/format'
  import type { KitLadder, Rung } from '../lib/types'

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
  const TICKS = [
    4, 6, 8, 10, 12, 16, 20, 25, 32, 40, 50, 65, 85, 100, 135, 180, 250, 350, 500, 700, 1000, 1500, 2000,
  ]
  const ticks = $derived(TICKS.filter((t) => t >= low && t <= high))
  const rows = $derived(new Map(ladder.pictures.map((p, i) => [p.format_id, TOP + i * ROW + ROW / 2])))
  const classes = $derived(
    ladder.classes.map((c) => ({
      ...c,
      from: Math.max(x(Math.max(c.from_mm ?? low, low)), LEFT),
      to: Math.min(x(Math.min(c.to_mm ?? high, high)), width - RIGHT),
    })),
  )
  /** The mark under the pointer or the keyboard. */
  let at = $state<number | null>(null)
  const lit = $derived(at === null ? undefined : ladder.rungs[at])
  const words = (r: Rung) =>
    `${r.lens}${r.via ? ` with ${r.via}` : ''}: ${mm(r.effective_mm)}${
      r.effective_long_mm === null ? '' : `–${mm(r.effective_long_mm)}`
    } mm, ${degrees(r.angle_deg)}, ${r.view_class}${r.verdict === 'covers' ? '' : r.verdict === 'marginal' ? ', just covers' : ', circle not stated'}`
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

<figure>
  <figcaption>
    Effective focal length of every lens in every picture
    <span class="soft"
      >· mm against {ladder.reference.name === 'full_frame'
        ? 'full frame'
        : ladder.reference.name === 'super35'
          ? 'Super 35'
          : 'the chosen window'} by {ladder.reference.by}, logarithmic: equal steps are equal changes of field</span
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
    class="canvas"
    bind:clientWidth={shown}
    tabindex="0"
    role="group"
    aria-label="The ladder: arrow keys go from mark to mark"
    onpointerover={look}
    {onkeydown}
  >
    <svg {width} {height} role="group" aria-label={ladder.words.join(' ')}>
      {#each classes as c, i (c.name)}
        {#if c.to > c.from}
          <rect
            class="class"
            class:odd={i % 2 === 1}
            x={c.from}
            y={TOP - 18}
            width={c.to - c.from}
            height={height - TOP - 8}
          />
          {#if c.to - c.from > 44}<text
              class="class-name"
              x={(c.from + c.to) / 2}
              y={TOP - 22}
              text-anchor="middle">{c.name}</text
            >{/if}
        {/if}
      {/each}
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
          <tspan class="body">{p.body}</tspan><title>{p.names.join(', ')} ({p.mode})</title></text
        >
      {/each}
      {#each ladder.rungs as r, i (i)}
        {@const y = rows.get(r.format_id) ?? 0}
        {@const hollow = r.magnification !== 1}
        {#if r.effective_long_mm !== null}
          <rect
            class="zoom"
            class:hollow
            class:lit={i === at}
            data-i={i}
            x={x(r.effective_mm)}
            y={y - 3}
            width={Math.max(x(r.effective_long_mm) - x(r.effective_mm), 2)}
            height="6"
          />
        {:else}
          <rect
            class="prime {r.verdict}"
            class:hollow
            class:lit={i === at}
            data-i={i}
            x={x(r.effective_mm) - 1.6}
            y={y - 7}
            width="3.2"
            height="14"
          />
        {/if}
      {/each}
    </svg>
  </div>
</figure>

<style>
  figure {
    border: 1px solid var(--line);
    background: var(--panel);
  }
  figcaption,
  .told {
    padding: 3px 10px;
    font-size: 13.5px;
  }
  strong {
    font-weight: 500;
    color: var(--accent);
  }
  .canvas {
    overflow-x: auto;
  }
  svg {
    display: block;
  }
  text {
    font-size: 12px;
    fill: var(--ink-soft);
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
  .class {
    fill: var(--light-fill);
    opacity: 0.35;
  }
  .class.odd {
    opacity: 0.85;
  }
  .class-name {
    fill: var(--light);
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
