<script lang="ts">
  import type { Snippet } from 'svelte'
  import { signed as signedFigure } from '../../lib/figures'
  import type { ExposureView } from '../../lib/types'

  type Row = ExposureView['ledger'][number]
  interface Props {
    ledger: Row[]
    off: number
    offText: string
    balanced: boolean
    /** What sets a row, and whether it may move. */
    control: Snippet<[Row]>
  }
  let { ledger, off, offText, balanced, control }: Props = $props()

  let width = $state(420)
  // Each bar begins where the one before it ended, so that the last end is the sum.
  const bars = $derived.by(() => {
    let at = 0
    return ledger.map((row) => {
      const from = at
      at += row.stops
      return { row, from, to: at }
    })
  })
  const ends = $derived([0, off, ...bars.flatMap((b) => [b.from, b.to])])
  const low = $derived(Math.floor(Math.min(...ends)) - 0.5)
  const high = $derived(Math.ceil(Math.max(...ends)) + 0.5)
  const x = $derived((stops: number) => ((stops - low) / (high - low)) * width)
  const marks = $derived(
    Array.from({ length: Math.floor(high) - Math.ceil(low) + 1 }, (_, i) => Math.ceil(low) + i).filter(
      (s) => high - low < 16 || s % 2 === 0,
    ),
  )
  const signed = (stops: number) => signedFigure(stops, 2, 0.005)
</script>

{#snippet scale(height: number)}
  {#each marks as s (s)}<line
      class="mark"
      class:zero={s === 0}
      x1={x(s)}
      x2={x(s)}
      y1="0"
      y2={height}
    />{/each}
{/snippet}

<table class="figures">
  <caption>Exposure, in stops: what each contributes, and what is left</caption>
  <tbody>
    {#each bars as { row, from, to } (row.key)}
      <tr data-row={row.key}>
        <th scope="row">{row.name}</th>
        <td class="control">{@render control(row)}</td>
        <td class="figure n">{signed(row.stops)}</td>
        <td class="beam"
          ><div bind:clientWidth={width}>
            <svg {width} height="26" aria-hidden="true">
              {@render scale(26)}
              <rect
                class={row.stops >= 0 ? 'gives' : 'takes'}
                x={Math.min(x(from), x(to))}
                y="7"
                width={Math.max(Math.abs(x(to) - x(from)), 1)}
                height="12"
              />
            </svg>
          </div>
        </td>
      </tr>
    {/each}
    <tr class="sum">
      <th scope="row">Left over</th>
      <td class:ok={balanced} class:warn={!balanced}><span role="status">{offText}</span></td>
      <td class="figure n">{signed(off)}</td>
      <td class="beam"
        ><div>
          <svg {width} height="30" aria-hidden="true">
            {@render scale(14)}
            {#each marks as s (s)}{#if width / (high - low) > 27 || s % 4 === 0}<text
                  x={x(s)}
                  y="26"
                  text-anchor="middle">{s > 0 ? `+${s}` : s}</text
                >{/if}{/each}
            <path class={balanced ? 'ok' : 'warn'} fill="currentColor" d="M{x(off)} 2 l5 6 l-5 6 l-5 -6Z" />
          </svg>
        </div>
      </td>
    </tr>
  </tbody>
</table>

<style>
  text {
    font-family: var(--font-figures);
    font-size: 12px;
    fill: var(--ink-soft);
  }
  .beam {
    width: 34%;
    padding: 0;
  }
  .beam div {
    overflow: hidden;
    /* The drawing follows the column, never the other way round. */
    contain: inline-size;
  }
  .mark {
    stroke: var(--line);
    &.zero {
      stroke: var(--ink);
    }
  }
  .gives {
    fill: var(--light);
  }
  .takes {
    fill: none;
    stroke: var(--light);
  }
  .sum th,
  .sum td {
    border-bottom: 0;
    padding-top: 4px;
  }
  @media (max-width: 700px) {
    .beam {
      width: 24%;
    }
    th,
    td {
      padding-right: 6px;
    }
    .control {
      font-size: 14px;
    }
  }
</style>
