<script lang="ts">
  import { signed } from '../../lib/figures'
  import { degrees, distanceWithUnit, mm, percent } from '../../lib/format'
  import type { KitMatch, MatchAsk, Matched, Package, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import ReferenceChoice from '../chain/ReferenceChoice.svelte'

  interface Props {
    ask: MatchAsk
    answer: KitMatch | null
    package: Package
    unit: Unit
    fault: (path: string) => string | undefined
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<MatchAsk>) => void
  }
  let { ask, answer, package: equipment, unit, fault, read, onchange }: Props = $props()
  let open = $state<number | null>(null)

  const on = $derived({
    name: 'full_frame' as const,
    by: 'width' as const,
    own: null,
    scan_mode_id: null,
    ...ask.on,
  })
  const by = $derived(on.by ?? 'width')
  const setting = (m: Matched) => `${m.lens}${m.zoom ? ` at ${mm(m.set_mm)}` : ''}`
  /** The error in the dimension that is matched, and the width's where it is another. */
  const off = (m: Matched) => {
    const text = `${percent(m.size_percent, 1)} of the ${by}`
    return Math.abs(m.width_percent - m.size_percent) < 0.05
      ? text
      : `${text}, ${percent(m.width_percent, 1)} of the width`
  }
</script>

<section class="panel" aria-label="Nearest match">
  <h2>Nearest match</h2>
  <div class="bar">
    <span class="item"
      ><span class="soft">Like a</span><EntryField
        label="Wanted focal length"
        kind="number"
        size={5}
        value={ask.focal_mm}
        fault={fault('focal_mm')}
        oninput={(value) => onchange({ focal_mm: value as number })}
      />mm on
      <ReferenceChoice
        value={on}
        package={equipment}
        label="Window of the wanted lens"
        dimensionLabel="Dimension that is matched"
        onchange={(value) => onchange({ on: value })}
      /></span
    >
    <span class="item"
      ><span class="soft">subject at</span><DistanceField
        label="Distance of the subject for the match"
        metres={ask.subject_m ?? 3}
        {unit}
        {read}
        onchange={(subject_m) => onchange({ subject_m })}
      /></span
    >
    <span class="item"
      ><span class="soft">background behind it</span><DistanceField
        label="Distance of the background behind the subject"
        metres={ask.background_m ?? 3}
        {unit}
        {read}
        onchange={(background_m) => onchange({ background_m })}
      /></span
    >
    {#if answer}<span class="soft"
        >{degrees(answer.wanted.angle_deg)} across{answer.wanted.field_m === null
          ? ''
          : `, ${distanceWithUnit(answer.wanted.field_m, unit)} at the subject`}</span
      >{/if}
  </div>
  {#if answer}
    <p class="words">{answer.words.join(' ')}</p>
    <div class="grid rows">
      <table>
        <caption class="sr-only">The nearest match in every picture</caption>
        <thead>
          <tr>
            <th scope="col">Recording format</th>
            <th scope="col" class="number">Needed</th>
            <th scope="col">Nearest in the kit</th>
            <th scope="col" class="number">Error</th>
            <th scope="col" class="number">Angle</th>
            <th scope="col" class="number" title="How much more (+) or less of the wanted {by} it shows"
              >{by[0]?.toUpperCase()}{by.slice(1)}</th
            >
            <th scope="col">Exact by moving</th>
          </tr>
        </thead>
        <tbody>
          {#each answer.rows as row (row.format_id)}
            {@const near = row.nearest}
            <tr
              onclick={() => (open = open === row.format_id ? null : row.format_id)}
              class:chosen={open === row.format_id}
            >
              <th scope="row"
                ><button class="pick" aria-expanded={open === row.format_id}
                  >{row.names[0]}{row.names.length > 1 ? ` +${row.names.length - 1}` : ''}</button
                > <span class="soft">{row.body}</span></th
              >
              <td class="number figure">{row.needed_mm === null ? '–' : `${mm(row.needed_mm)} mm`}</td>
              {#if near}
                <td
                  ><span class={!near.covers ? 'bad' : near.same ? 'ok' : ''}
                    >{near.covers ? (near.marginal ? '≈' : near.same ? '✓' : '·') : '✗'} {setting(near)}</span
                  >
                  <span class="soft"
                    >{near.via ? `with ${near.via}` : ''}{near.covers ? '' : ' does not cover'}</span
                  ></td
                >
                <td class="number figure">{signed(near.error_mm, 1, 0.005)} mm</td>
                <td class="number figure">{signed(near.error_deg, 1, 0.005)}°</td>
                <td class="number figure"
                  >{percent(
                    near.size_percent,
                    1,
                  )}{#if Math.abs(near.width_percent - near.size_percent) >= 0.05}<br /><span class="soft"
                      >width {percent(near.width_percent, 1)}</span
                    >{/if}</td
                >
                <td class="move"
                  >{row.move?.text ?? ''}{#each row.notes as note (note)}<span class="warn note">{note}</span
                    >{/each}</td
                >
              {:else}<td colspan="5" class="bad">✗ no lens of the kit can be mounted</td>{/if}
            </tr>
            {#if open === row.format_id}
              <tr
                ><td colspan="7" class="more">
                  {#each row.neighbours as n (n.lens_id + '.' + n.focal_mm)}
                    <span
                      >{n.size_percent > 0 ? 'Next wider' : 'Next longer'}: {setting(n)}{n.via
                        ? ` with ${n.via}`
                        : ''}, {off(n)}.</span
                    >
                  {/each}
                  {#if row.simplest}<span
                      >Without reducer or extender: {setting(row.simplest)}, {off(row.simplest)}.</span
                    >{/if}
                  {#if row.not_covering}<span class="warn"
                      >{setting(row.not_covering)} would be nearer ({off(row.not_covering)}), but does not
                      cover.</span
                    >{/if}
                  {#if row.names.length > 1}<span class="soft">The same picture: {row.names.join(', ')}.</span
                    >{/if}
                </td></tr
              >
            {/if}
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  .bar,
  .item {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.4rem;
    font-size: 14px;
  }
  .bar {
    gap: 0.3rem 1.3rem;
  }
  .rows {
    max-height: 330px;
    overflow-y: auto;
  }
  thead th {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--ground);
  }
  tbody tr {
    cursor: pointer;
  }
  .move {
    white-space: normal !important;
    min-width: 260px;
    font-size: 12.5px;
  }
  .note {
    display: block;
  }
  .more {
    white-space: normal !important;
    background: var(--cell);
  }
  .more span {
    margin-right: 1rem;
  }
</style>
