<script lang="ts">
  import { aperture, percent, stops } from '../../lib/format'
  import { trade } from '../../lib/trade.svelte'
  import NumberField from '../fields/NumberField.svelte'
  import type { CameraMatch, MatchOption } from '../../lib/types'

  interface Props {
    name: string
    master: string
    /** How far off in width a lens may be to be offered, per cent. */
    within: number
    fault: string | undefined
    match: CameraMatch
    ontake: (option: MatchOption) => void
    onwithin: (percent: number) => void
    onclose: () => void
  }
  let { name, master, within, fault, match, ontake, onwithin, onclose }: Props = $props()
  const { exact } = $derived(match)
  /** It is asked for above: it comes into view, and the keyboard goes on here. */
  function seen(heading: HTMLElement) {
    heading.focus({ preventScroll: true })
    heading.closest('section')?.scrollIntoView({ block: 'nearest' })
  }
</script>

<section aria-label="Match {name} to {master}">
  <div class="head">
    <h2 tabindex="-1" {@attach seen}>Match {name} to {master}</h2>
    {#if exact.focal_mm !== null && exact.f_number !== null}<span
        >Exact: <span class="figure accent"
          >{exact.focal_mm.toFixed(1)} mm, f/{exact.f_number.toFixed(2)}{exact.ei === null
            ? ''
            : `, ${trade.ei(Math.round(exact.ei))}`}</span
        ></span
      >{/if}
    <span class="within"
      ><span class="soft">width within ±</span><NumberField
        label="How far off in width a match may be, per cent"
        size={3}
        value={within}
        {fault}
        onchange={(value) => value !== null && onwithin(value)}
      /> %</span
    >
    <button class="knob small" onclick={onclose}>Close</button>
  </div>
  {#if match.options.length}<div class="wide">
      <table class="figures">
        <thead
          ><tr
            ><th><span class="sr-only">Take</span></th><th>Lens</th><th class="n">Stop</th><th class="n"
              >Width</th
            ><th class="n">Depth</th><th class="n">Exposure</th><th>{trade.sensitivity} and ND</th><th
              >What is left</th
            ></tr
          ></thead
        >
        <tbody>
          {#each match.options as o (o.lens)}
            <tr class:good={o.good}>
              <td><button class="knob small" onclick={() => ontake(o)}>Use this</button></td>
              <td class="lens"
                >{o.good ? '✓ ' : ''}{o.lens}
                <span class="soft">{o.via}, {o.focal_mm.toFixed(1)} mm</span></td
              >
              <td class="n figure"
                >{o.marks}{aperture(o.stop)} <span class="soft">({o.exact_stop.toFixed(2)})</span></td
              >
              <td class="n figure">{percent(o.width_percent, 1)}</td>
              <td class="n figure">{stops(o.depth_stops)} stops</td>
              <td class="n figure">{stops(o.exposure_stops)} stops</td>
              <td class="figure">{trade.ei(o.ei)}{o.nd_stops ? `, ${o.nd_parts.join(' + ')}` : ''}</td>
              <td class="left"
                >{o.text}{#if o.warning}<br /><span class="warn">{o.warning}</span
                  >{/if}{#each o.notes as note (note)}<br /><span class="warn">{note}</span>{/each}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>{/if}
  {#each match.advice as text (text)}<p class="warn">{text}</p>{/each}
</section>

<style>
  section {
    display: grid;
    gap: 5px;
    min-width: 0;
    padding: 8px 12px;
    border: 1px solid var(--line-strong);
    background: var(--panel);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.2rem;
    align-items: baseline;
  }
  .head button {
    margin-left: auto;
  }
  h2 {
    font-size: 15px;
    font-weight: 500;
  }
  .lens,
  .left {
    white-space: normal;
    min-width: 112px;
  }
  .good .lens {
    color: var(--ok);
  }
</style>
