<script lang="ts">
  import { distance, distanceWithUnit } from '../../lib/format'
  import type { NearFar } from '../../lib/depthCurves'
  import { limits, withUnit } from '../../lib/figures'
  import type { Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'

  interface Props {
    /** Metres from the sensor plane. */
    focusM: number
    /** The nearest that the lens focuses. */
    closeM: number
    unit: Unit
    sharp: NearFar | null
    /** Why near and far are not told. */
    why: string
    /** What counts as sharp, in words. */
    rule: string
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (metres: number) => void
  }
  let { focusM, closeM, unit, sharp, why, rule, read, onchange }: Props = $props()

  // The scale goes by the reciprocal of the distance, as the ring of a lens does: near marks lie far apart.
  const FARTHEST = 100
  const WIDE = 960
  const MARKS_M = [0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.2, 1.4, 1.6, 1.8, 2, 2.5, 3, 3.5, 4, 5, 6, 8, 10, 15, 20, 50] // prettier-ignore
  const MARKS_FT = [0.75, 1, 1.25, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 9, 10, 12, 15, 20, 25, 30, 40, 60, 100]
  const FOOT = 0.3048
  const marks = $derived(unit === 'm' ? MARKS_M : MARKS_FT.map((feet) => feet * FOOT))
  /** Of the logarithm and the reciprocal a mean: far marks can still be told apart. */
  const at = (metres: number) => Math.log(metres) - 0.25 / metres
  const low = $derived(at(Math.max(closeM, 0.1)))
  const high = at(FARTHEST)
  const x = (metres: number) => ((at(metres) - low) / (high - low)) * WIDE
  function metresAt(wanted: number): number {
    let [a, b] = [Math.max(closeM, 0.1), FARTHEST]
    for (let i = 0; i < 40; i++) {
      const middle = Math.sqrt(a * b)
      if (x(middle) < wanted) a = middle
      else b = middle
    }
    return a
  }

  let strip = $state<HTMLElement>()
  let wide = $state(360)
  let from: { x: number; at: number } | null = null
  const shift = $derived(wide / 2 - x(Math.min(Math.max(focusM, closeM), FARTHEST)))

  function down(event: PointerEvent) {
    strip?.setPointerCapture(event.pointerId)
    from = { x: event.clientX, at: x(Math.min(focusM, FARTHEST)) }
  }
  function move(event: PointerEvent) {
    if (!from) return
    const wanted = Math.min(Math.max(from.at - (event.clientX - from.x), 0), WIDE)
    const metres = metresAt(wanted)
    const grain = unit === 'm' ? (metres < 2 ? 0.01 : metres < 6 ? 0.02 : 0.1) : FOOT / (metres < 3 ? 24 : 12)
    onchange(Number(Math.max(Math.round(metres / grain) * grain, closeM).toFixed(4)))
  }
  function step(by: number) {
    const grain = unit === 'm' ? (focusM < 2 ? 0.01 : 0.05) : FOOT / (focusM < 3 ? 24 : 12)
    onchange(Number(Math.min(Math.max((Math.round(focusM / grain) + by) * grain, closeM), 1000).toFixed(4)))
  }
  function keys(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageUp: 10, PageDown: -10 }[
      event.key
    ]
    if (by === undefined) return
    event.preventDefault()
    step(by)
  }
  const shown = $derived(sharp && limits(sharp.near_m, sharp.far_m, focusM, unit))
</script>

<section class="sharp" aria-label="Focus, near and far">
  <div class="figures">
    <span
      ><span class="soft">near</span><output class="figure"
        >{shown ? withUnit(shown.near, shown) : '–'}</output
      ></span
    >
    <span class="middle"
      ><span class="soft">focus</span><DistanceField
        label="Focus"
        metres={focusM}
        {unit}
        {read}
        size={7}
        onchange={(metres) => onchange(Math.max(metres, closeM))}
      /></span
    >
    <span
      ><span class="soft">far</span><output class="figure">{shown ? withUnit(shown.far, shown) : '–'}</output
      ></span
    >
  </div>
  <div
    class="wheel"
    bind:this={strip}
    bind:clientWidth={wide}
    role="slider"
    tabindex="0"
    aria-label="Focus wheel"
    aria-valuemin={closeM}
    aria-valuemax={FARTHEST}
    aria-valuenow={focusM}
    aria-valuetext={distanceWithUnit(focusM, unit)}
    onpointerdown={down}
    onpointermove={move}
    onpointerup={() => (from = null)}
    onpointercancel={() => (from = null)}
    onkeydown={keys}
  >
    <svg viewBox="0 0 {Math.max(wide, 1)} 64" aria-hidden="true">
      <g transform="translate({shift} 0)">
        {#if sharp}
          <rect
            x={x(Math.max(sharp.near_m, closeM))}
            y="20"
            width={Math.max(
              x(Math.min(sharp.far_m ?? FARTHEST, FARTHEST)) - x(Math.max(sharp.near_m, closeM)),
              1,
            )}
            height="30"
            fill="var(--accent-fill)"
          />
        {/if}
        {#each marks.filter((mark) => mark >= closeM) as mark, i (mark)}
          <line x1={x(mark)} x2={x(mark)} y1={i % 2 ? 34 : 26} y2="50" stroke="var(--line-strong)" />
          {#if i % 2 === 0}
            <text x={x(mark)} y="16" text-anchor="middle" font-size="13" fill="var(--ink-soft)"
              >{unit === 'm' ? Number(mark.toFixed(2)) : distance(mark, 'ft')}</text
            >
          {/if}
        {/each}
        <line x1={x(closeM)} x2={x(FARTHEST)} y1="50" y2="50" stroke="var(--line-strong)" />
      </g>
      <path d="M{wide / 2} 46l8 14h-16z" fill="var(--accent)" />
    </svg>
  </div>
  <p class="soft">{why || 'From the sensor plane. Turn the wheel, or tap the figure to write one.'}</p>
  {#if sharp && rule}<p class="soft">{rule}</p>{/if}
</section>

<style>
  .sharp {
    display: grid;
    gap: 4px;
    padding: 8px 10px;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  .figures {
    display: grid;
    grid-template-columns: 1fr auto 1fr;
    align-items: end;
    gap: 6px;
  }
  .figures > span {
    display: grid;
    font-size: 13px;
  }
  .figures > span:last-child {
    text-align: right;
  }
  .middle {
    text-align: center;
  }
  output {
    font-size: clamp(22px, 6.4vw, 32px);
    line-height: 1.15;
    color: var(--accent);
    white-space: nowrap;
  }
  .middle :global(input) {
    width: 6.6ch;
    font-size: clamp(24px, 7vw, 36px);
    text-align: center;
    border-bottom-color: var(--line-strong);
  }
  .wheel {
    touch-action: pan-y;
    cursor: ew-resize;
    overflow: hidden;
    user-select: none;
  }
  svg {
    display: block;
    width: 100%;
    height: 64px;
  }
  p {
    font-size: 13px;
  }
</style>
