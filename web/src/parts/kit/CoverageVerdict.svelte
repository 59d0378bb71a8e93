<script lang="ts">
  import { marginText } from '../../lib/figures'
  import { mm, share } from '../../lib/format'
  import type { CoverageOption, CoverageView } from '../../lib/types'
  import { COVERAGE } from '../../lib/verdicts'

  interface Props {
    answer: CoverageView
    lens: string
    format: string
    /** The Bench with this lens in this format. */
    href: string
    ontry: (option: CoverageOption) => void
  }
  let { answer, lens, format, href, ontry }: Props = $props()
  const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`
</script>

<section class="verdict" aria-label="What to do">
  <p class="head {answer.map.verdict}">
    <strong
      >{COVERAGE[answer.map.verdict].sign}
      {lens} in {format}: {COVERAGE[answer.map.verdict].words}{answer.lens.stands_in['image_circle_mm']
        ? ', if its circle is as assumed'
        : ''}</strong
    >
    <span class="figure"
      >{answer.map.circle_mm === null
        ? `needs ${mm(answer.map.needed_mm)} mm`
        : `Ø ${mm(answer.map.circle_mm)} of ${mm(answer.map.needed_mm)} mm, ${marginText(answer.margin_mm ?? 0)}`}</span
    >
    {#if answer.map.dark_share}<span class="figure"
        >{share(answer.map.dark_share)} dark: {answer.map.dark_corners.length === 4
          ? 'all four corners'
          : answer.map.dark_corners.join(', ')}</span
      >{/if}
  </p>
  {#if answer.lens.mounting.verdict !== 'possible'}
    <p class={answer.lens.mounting.verdict === 'impossible' ? 'bad' : 'warn'}>
      {sentence([...answer.lens.mounting.reasons, ...answer.lens.mounting.consequences].join('; '))}
    </p>
  {/if}
  {#if answer.advice.length}
    <h2>What to do, the cheapest first</h2>
    <ol>
      {#each answer.advice as option (option.text)}
        <li>
          <span class="cost figure" title="Light, field and handling, counted in stops"
            >{option.cost_stops >= 100 ? '' : option.cost_stops.toFixed(1)}</span
          >
          <span>{option.text}</span>
          {#if Object.keys(option.set).length}<button class="knob" onclick={() => ontry(option)}>Try</button
            >{/if}
        </li>
      {/each}
    </ol>
    <p class="soft small">
      In stops: light lost, field lost (as the light gathered on it), and handling. The order is ours; the
      figures say why.
    </p>
  {:else if answer.map.verdict === 'covers'}<p class="soft">Nothing to do.</p>{/if}
  <p><a class="link" {href}>Set the Bench to this</a></p>
</section>

<style>
  .verdict {
    display: grid;
    gap: 4px;
    align-content: start;
    font-size: 14.5px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    padding: 4px 10px;
    background: var(--cell);
  }
  li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    padding-block: 2px;
    border-bottom: 1px solid var(--line);
  }
  .cost {
    text-align: right;
    color: var(--accent);
  }
  .small {
    font-size: 12.5px;
  }
</style>
