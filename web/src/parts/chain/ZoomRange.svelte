<script lang="ts">
  import { mm } from '../../lib/format'

  interface Props {
    low: number
    high: number
    focal: number
    /** Marks along the range, mm. */
    marks: number[]
    /** From here on the circle covers; null where it does at once, or never. */
    coversFrom: number | null
    onset: (focal: number) => void
  }
  let { low, high, focal, marks, coversFrom, onset }: Props = $props()

  let width = $state(300)
  const PAD = 9
  // Equal steps are equal changes of field.
  const place = (f: number) => PAD + (Math.log(f / low) / Math.log(high / low)) * (width - 2 * PAD)
  const STEPS = 400
  const value = $derived(Math.round((Math.log(focal / low) / Math.log(high / low)) * STEPS))
  /** Marks whose figures have room. */
  const shown = $derived.by(() => {
    const kept = [0, marks.length - 1]
    let last = place(marks[0] ?? low)
    const end = place(marks.at(-1) ?? high)
    marks.forEach((m, i) => {
      if (place(m) - last > 26 && end - place(m) > 26) {
        kept.push(i)
        last = place(m)
      }
    })
    return kept
  })
  function set(step: number) {
    const f = low * (high / low) ** (step / STEPS)
    onset(Number(f.toFixed(f < 30 ? 1 : 0)))
  }
  /** The keys go from mark to mark; with Shift by fine steps, as the slider does of itself. */
  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
    if (!by || event.shiftKey) return
    event.preventDefault()
    const next = by > 0 ? marks.find((m) => m > focal * 1.0005) : marks.findLast((m) => m < focal / 1.0005)
    if (next !== undefined) onset(next)
  }
</script>

<span class="zoom" bind:clientWidth={width}>
  <input
    type="range"
    min="0"
    max={STEPS}
    {value}
    aria-label="Focal length of the zoom"
    aria-valuetext="{mm(focal)} mm"
    title="Arrow keys: from mark to mark"
    oninput={(event) => set(Number(event.currentTarget.value))}
    {onkeydown}
  />
  <svg {width} height="22" aria-hidden="true">
    {#if coversFrom !== null}
      <rect
        class="short"
        x={PAD}
        y="0"
        width={Math.max(place(Math.min(coversFrom, high)) - PAD, 0)}
        height="5"
      />
    {/if}
    {#each marks as m, i (m)}
      <line x1={place(m)} x2={place(m)} y1="0" y2="6" />
      {#if shown.includes(i)}<text class="figure" x={place(m)} y="18" text-anchor="middle">{m}</text>{/if}
    {/each}
  </svg>
</span>

<style>
  .zoom {
    display: inline-grid;
    width: 340px;
    max-width: 100%;
  }
  input {
    width: 100%;
    margin: 0;
    accent-color: var(--accent);
  }
  line {
    stroke: var(--ink-soft);
  }
  text {
    font-size: 12px;
    fill: var(--ink-soft);
  }
  .short {
    fill: color-mix(in srgb, var(--bad) 55%, transparent);
  }
</style>
