<script lang="ts">
  import * as client from '../../lib/client'
  import { toQuery } from '../../lib/address'
  import { marginText, signed } from '../../lib/figures'
  import { degrees, mm, share } from '../../lib/format'
  import { asOnBench, KitLook } from '../../lib/kit.svelte'
  import type { CoverageAsk, CoverageOption, CoverageView } from '../../lib/types'
  import CircleAlongPlot from '../../parts/CircleAlongPlot.svelte'
  import KitSettings from '../../parts/KitSettings.svelte'
  import LensAsSet from '../../parts/LensAsSet.svelte'
  import { COVERAGE } from '../../parts/mounting'
  import NoticeBar from '../../parts/NoticeBar.svelte'
  import WindowMapDrawing from '../../parts/WindowMapDrawing.svelte'

  interface Props {
    productionId: number
    productionName: string
  }
  let { productionId, productionName }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const look = new KitLook<CoverageAsk, CoverageView>(
    productionId,
    (bench) => ({
      ...asOnBench(bench),
      mounted: 'simplest',
      format_id: bench.format_id,
      lens_id: bench.lens_id,
      focal_mm: bench.focal_mm,
      stop: bench.stop,
      focus_m: null,
      adapter_ids: null,
    }),
    (ask, signal) => client.viewCoverage(productionId, ask, signal),
  )
  const answer = $derived(look.answer)
  const place = $derived(
    look.equipment?.bodies
      .flatMap((body) => body.modes.flatMap((mode) => mode.formats.map((format) => ({ body, mode, format }))))
      .find((p) => p.format.id === look.ask?.format_id),
  )
  const lens = $derived(
    look.equipment?.lens_sets.flatMap((set) => set.lenses).find((l) => l.id === look.ask?.lens_id),
  )

  /** Try an option here: what it sets is a part of the question. */
  function take(option: CoverageOption) {
    look.change(option.set as Partial<CoverageAsk>)
  }
  const benchHref = $derived(
    look.bench && look.ask && answer
      ? `/p/${productionId}/bench?${toQuery({
          ...look.bench,
          lens_id: look.ask.lens_id,
          format_id: look.ask.format_id,
          adapter_id: answer.lens.adapter_ids[0] ?? null,
          second_adapter_id: answer.lens.adapter_ids[1] ?? null,
          focal_mm: look.ask.focal_mm ?? null,
          stop: look.ask.stop ?? null,
          crop_ids: look.ask.crop_ids ?? [],
        })}`
      : '',
  )
  const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`
  function firstOf(modeId: number) {
    const mode = look.equipment?.bodies.flatMap((b) => b.modes).find((m) => m.id === modeId)
    const first = mode?.formats[0]
    if (first) look.change({ format_id: first.id })
  }
</script>

<svelte:head><title>{productionName}: coverage – Hextan</title></svelte:head>

<NoticeBar what="package" problem={look.problem} conflict={false} onresolve={() => {}} onundo={null} />
{#if look.ask && look.equipment}
  <KitSettings
    ask={look.ask}
    package={look.equipment}
    ways={false}
    parts={false}
    onchange={(part) => look.change(part)}
  />
  <LensAsSet
    ask={look.ask}
    package={look.equipment}
    {lens}
    shown={answer?.lens ?? null}
    onchange={(part) => look.change(part)}
  />
  {#if answer && place && lens}
    <div class="upper">
      <div class="left">
        <WindowMapDrawing map={answer.map} bodyName={place.body.name} onchoose={firstOf} />
        {#if answer.along}<CircleAlongPlot
            along={answer.along}
            onset={(at) =>
              look.change(
                answer.along?.by === 'focal'
                  ? { focal_mm: at }
                  : answer.along?.by === 'stop'
                    ? { stop: at }
                    : { focus_m: at },
              )}
          />{/if}
      </div>
      <div class="right">
        <section class="verdict" aria-label="What to do">
          <p class="head {answer.map.verdict}">
            <strong
              >{COVERAGE[answer.map.verdict].sign}
              {lens.name} in {place.format.name}: {COVERAGE[answer.map.verdict].words}</strong
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
                  {#if Object.keys(option.set).length}<button class="knob" onclick={() => take(option)}
                      >Try</button
                    >{/if}
                </li>
              {/each}
            </ol>
            <p class="soft small">
              In stops: light lost, field lost (as the light gathered on it), and handling. The order is ours;
              the figures say why.
            </p>
          {:else if answer.map.verdict === 'covers'}<p class="soft">Nothing to do.</p>{/if}
          <p><a href={benchHref}>Set the Bench to this</a></p>
        </section>
        <div class="grid">
          <table>
            <caption class="sr-only">Coverage of every lens in {place.format.name}</caption>
            <thead>
              <tr>
                <th scope="col">Lens in {place.format.name}</th>
                <th scope="col">Mounted</th>
                <th scope="col" class="number">Effective</th>
                <th scope="col" class="number">Angle</th>
                <th scope="col" class="number">Circle</th>
                <th scope="col" class="number">Needed</th>
                <th scope="col" class="number">Margin</th>
                <th scope="col" class="number">Dark</th>
                <th scope="col">Coverage</th>
              </tr>
            </thead>
            <tbody>
              {#each answer.lenses as row (`${row.lens_id} ${row.name}`)}
                <tr class:chosen={row.lens_id === lens.id}>
                  <th scope="row"
                    ><button
                      class="pick"
                      onclick={() =>
                        look.change({
                          lens_id: row.lens_id,
                          focal_mm: row.focal_mm,
                          stop: null,
                          adapter_ids: null,
                        })}>{row.name}</button
                    > <span class="soft">{row.set}</span></th
                  >
                  <td>{row.via ?? (row.verdict === 'impossible' ? '' : 'directly')}</td>
                  <td class="number figure">{mm(row.effective_mm)}</td>
                  <td class="number figure">{degrees(row.angle_deg)}</td>
                  <td class="number figure">{mm(row.circle_mm)}</td>
                  <td class="number figure">{mm(row.needed_mm)}</td>
                  <td class="number figure">{row.margin_mm === null ? '–' : signed(row.margin_mm, 1)}</td>
                  <td class="number figure">{row.dark_share ? share(row.dark_share) : '–'}</td>
                  <td class={row.verdict} title={row.why_not}
                    >{COVERAGE[row.verdict].sign}
                    {row.dark_corners.length && row.dark_corners.length < 4
                      ? `${row.dark_corners.join(', ')} dark`
                      : COVERAGE[row.verdict].words}{row.why_not ? `: ${row.why_not}` : ''}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      </div>
    </div>
  {/if}
{/if}

<style>
  .upper {
    display: grid;
    grid-template-columns: 430px minmax(0, 1fr);
    gap: 10px 14px;
  }
  .left,
  .right {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
    align-content: start;
    min-width: 0;
  }
  .left > :global(figure:first-child) {
    height: 350px;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  .right .grid {
    max-height: 480px;
    overflow: auto;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--ground);
  }
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
  strong,
  h2 {
    font-weight: 500;
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
  a {
    color: var(--light);
    text-decoration: underline;
  }
  .pick {
    cursor: pointer;
  }
  .pick:hover {
    text-decoration: underline;
  }
  .covers {
    color: var(--ok);
  }
  .marginal,
  .unknown,
  .warn {
    color: var(--warn);
  }
  .short,
  .bad {
    color: var(--bad);
  }
  td.impossible {
    color: var(--ink-soft);
    max-width: 330px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 1000px) {
    .upper {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
