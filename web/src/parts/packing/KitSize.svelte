<script lang="ts">
  import { count } from '../../lib/packing'
  import type { KitAnswer } from '../../lib/types'

  interface Props {
    kit: KitAnswer
    /** Whether more is to come. */
    atWork: boolean
    onshot: (key: string) => void
  }
  let { kit, atWork, onshot }: Props = $props()

  const WIDTH = 340
  const HEIGHT = 150
  const ROOM = { left: 34, right: 60, top: 12, bottom: 26 }
  const most = $derived(Math.max(1, ...kit.curve.map((point) => point.shots)))
  const last = $derived(Math.max(2, kit.curve.at(-1)?.lenses ?? 1))
  const x = (lenses: number) => ROOM.left + ((lenses - 1) / (last - 1)) * (WIDTH - ROOM.left - ROOM.right)
  const y = (shots: number) => HEIGHT - ROOM.bottom - (shots / most) * (HEIGHT - ROOM.top - ROOM.bottom)
  const line = $derived(kit.curve.map((point) => `${x(point.lenses)},${y(point.shots)}`).join(' '))
  const marks = $derived(
    kit.curve.filter((_, i) => kit.curve.length <= 10 || i % 2 === 0 || i === kit.curve.length - 1),
  )
  const told = $derived(
    kit.curve
      .map((point) => `${count(point.lenses, 'lens', 'lenses')}: ${count(point.shots, 'shot')}`)
      .join(', '),
  )
  /** What one shot asks, in one row: dropped first. */
  const asked = $derived([...new Set(kit.what_if.map((each) => each.key))])
</script>

<section class="panel" aria-label="How big it has to be">
  <h2>How big it has to be</h2>
  {#if kit.curve.length > 1}
    <svg viewBox="0 0 {WIDTH} {HEIGHT}" role="img" aria-label="Shots that so many lenses do at most. {told}">
      {#each marks as point (point.lenses)}
        <line class="mark" x1={ROOM.left} x2={x(point.lenses)} y1={y(point.shots)} y2={y(point.shots)} />
        <text x={x(point.lenses)} y={HEIGHT - 10} text-anchor="middle">{point.lenses}</text>
        <text x={x(point.lenses) + 6} y={y(point.shots) + 14} class="value">{point.shots}</text>
      {/each}
      <line class="axis" x1={ROOM.left} x2={WIDTH - ROOM.right} y1={y(0)} y2={y(0)} />
      <polyline points={line} />
      {#each kit.curve as point (point.lenses)}
        <circle
          cx={x(point.lenses)}
          cy={y(point.shots)}
          r={point.lenses === kit.lenses ? 5 : 2.5}
          class:here={point.lenses === kit.lenses}
        />
      {/each}
      <text x={2} y={ROOM.top + 2}>shots</text>
      <text x={WIDTH - 2} y={HEIGHT - 10} text-anchor="end">lenses</text>
    </svg>
  {/if}
  {#if asked.length}
    <table class="figures">
      <caption>Shots that make it big, and what they would have to let go</caption>
      <tbody>
        {#each asked as key (key)}
          {@const rows = kit.what_if.filter((each) => each.key === key)}
          <tr>
            <th scope="row"><button class="link" onclick={() => onshot(key)}>{rows[0]?.name}</button></th>
            <td class="told"
              ><span class="figure">{count(rows[0]?.lenses ?? 0, 'lens', 'lenses')}</span> if it is {rows
                .map((each) => each.change)
                .join('; or ')}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {:else if atWork}
    <p class="soft no-print">More is being looked at …</p>
    <p class="print-only">
      Printed while other kits and single shots were still being looked at: the sheet waits for them.
    </p>
  {:else if kit.curve.length && !kit.unfinished.length && !kit.kept}
    <p class="soft">No single shot makes it bigger than it would be without.</p>
  {/if}
  {#if kit.others.length}
    <table class="figures">
      <caption>Other kits</caption>
      <tbody>
        {#each kit.others as other, i (i)}
          <tr>
            <th scope="row" class:ok={other.tie}>{other.tie ? 'as good' : 'next best'}</th>
            <td class="told">
              {#if other.adds.length}{other.adds.join(', ')} instead of {other.lacks.join(', ')}{:else}without {other.lacks.join(
                  ', ',
                )}{/if}
              {#if !other.tie}<span class="soft">: {other.told}</span>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if kit.unfinished.length}<p class="soft">Not looked at to the end: {kit.unfinished.join(', ')}.</p>{/if}
</section>

<style>
  h2 {
    font-size: 15px;
  }
  .panel {
    font-size: 14px;
  }
  svg {
    width: 100%;
    max-width: 420px;
    font-size: 12px;
  }
  text {
    fill: var(--ink-soft);
    font-family: var(--font-figures);
  }
  .value {
    fill: var(--ink);
  }
  .mark {
    stroke: var(--line);
  }
  .axis {
    stroke: var(--line-strong);
  }
  polyline {
    fill: none;
    stroke: var(--light);
    stroke-width: 2;
  }
  circle {
    fill: var(--light);
  }
  .here {
    fill: var(--accent);
  }
  .figures .told {
    white-space: normal;
    line-height: 1.25;
    width: 100%;
  }
  .figures th {
    vertical-align: top;
  }
</style>
