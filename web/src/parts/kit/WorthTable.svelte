<script lang="ts">
  import { distanceWithUnit, percent, aperture } from '../../lib/format'
  import { money } from '../../lib/packing'
  import { VERDICTS } from '../../lib/shotList'
  import type { Unit, Worth, WorthRow } from '../../lib/types'
  import { weightWords } from '../../lib/weights'
  import { HAVE, lensWords, thingWords } from '../../lib/worth'

  interface Props {
    answer: Worth
    unit: Unit
    /** The Bench with a choice; null where it cannot be set there. */
    hrefOf: (row: WorthRow) => string | null
  }
  let { answer, unit, hrefOf }: Props = $props()
  let shown = $state<keyof typeof HAVE | ''>('')
  let unbeaten = $state(false)
  const rows = $derived(
    answer.rows.filter((row) => (shown === '' || row.have === shown) && !(unbeaten && row.beaten_by)),
  )
  const kinds = $derived(Object.keys(answer.counts).length)
  const steps = $derived(new Map(answer.steps.map((step, n) => [step.key, n + 1])))
  const things = (row: WorthRow) => row.things.map((thing) => thingWords(thing, answer.currency)).join('\n')
</script>

{#if answer.rows.length}
  <div class="bar no-print" role="group" aria-label="Which choices">
    {#if kinds > 1}
      <button class="knob small" aria-pressed={shown === ''} onclick={() => (shown = '')}
        >all {answer.found}</button
      >
      {#each Object.entries(HAVE) as [have, { words }] (have)}
        {@const count = answer.counts[have as keyof typeof HAVE] ?? 0}
        {#if count}<button
            class="knob small"
            aria-pressed={shown === have}
            onclick={() => (shown = shown === have ? '' : (have as keyof typeof HAVE))}
            >{words} {count}</button
          >{/if}
      {/each}
    {/if}
    <label><input type="checkbox" bind:checked={unbeaten} /> only what nothing beats in all four</label>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="grid" role="group" aria-label="Every choice" tabindex="0">
    <table>
      <caption class="sr-only">Every choice, the best first</caption>
      <thead>
        <tr>
          <th scope="col">Lens</th>
          <th scope="col">On</th>
          <th scope="col">Paid</th>
          <th scope="col" class="number">Cost</th>
          <th scope="col" class="number">Distance</th>
          <th
            scope="col"
            class="number"
            title="As the ring is set: a reducer makes it wider at the sensor, an extender narrower">Stop</th
          >
          <th scope="col" class="number" title="How much wider (+) or tighter than wanted">Field</th>
          <th scope="col" class="number" title="The disc of the light, of the picture's width">Blur</th>
          <th scope="col" class="number" title="Against the first step">Softer</th>
          <th scope="col" class="number">Weight</th>
          <th scope="col">Beaten by</th>
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.key)}
          {@const href = hrefOf(row)}
          {@const step = steps.get(row.key)}
          {@const verdict = VERDICTS[row.verdict]}
          <tr class:chosen={step !== undefined} class:dim={row.beaten_by !== ''}>
            <th scope="row"
              >{#if href}<a {href} title="On the Bench">{lensWords(row)}</a>{:else}{lensWords(row)}{/if}
              {#if step}<span class="accent figure">step {step}</span>{/if}
              {#if row.choice.adapters.length}<span class="soft">{row.choice.adapters.join(', ')}</span
                >{/if}</th
            >
            <td
              >{#if row.verdict !== 'does'}<span class={verdict.look} title={verdict.words}
                  >{verdict.sign}</span
                >
              {/if}{row.choice.body} <span class="soft">{row.choice.format}</span></td
            >
            <td class={HAVE[row.have].look} title={things(row)}>{HAVE[row.have].words}</td>
            <td class="number figure">{row.cost === null ? '–' : money(row.cost, answer.currency)}</td>
            <td class="number figure"
              >{row.choice.distance_m === null ? '–' : distanceWithUnit(row.choice.distance_m, unit)}</td
            >
            <td class="number figure"
              >{row.choice.stop === null ? '–' : `${row.choice.marks}${aperture(row.choice.stop)}`}</td
            >
            <td class="number figure"
              >{row.choice.percent === null || Math.abs(row.choice.percent) < 0.5
                ? '='
                : percent(row.choice.percent, 0)}</td
            >
            <td class="number figure">{row.blur_percent.toFixed(2)} %</td>
            <td class="number figure">{row.softer_percent === null ? '' : percent(row.softer_percent, 0)}</td>
            <td class="number figure">{row.weight_kg === null ? '–' : weightWords(row.weight_kg, unit)}</td>
            <td class="notes"
              >{row.beaten_by}{#each row.notes as note (note)}<span class="warn">{note}</span>{/each}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if answer.found > answer.rows.length}
    <p class="soft">The first {answer.rows.length} of {answer.found} choices.</p>
  {/if}
{/if}

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: center;
    margin-block: 6px;
    font-size: 14px;
  }
  .accent {
    color: var(--accent);
  }
  tbody th {
    min-width: 9rem;
    white-space: normal;
  }
  @media (pointer: coarse) {
    tbody th a {
      display: inline-flex;
      align-items: center;
      min-height: 44px;
    }
  }
  .dim {
    color: var(--ink-soft);
  }
  .notes {
    min-width: 180px;
    white-space: normal !important;
    font-size: 13px;
  }
  .notes span {
    display: block;
  }
</style>
