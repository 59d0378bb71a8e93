<script lang="ts">
  import Choice from '../../parts/controls/Choice.svelte'
  import { namedOptions } from '../../lib/options'
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { asOnBench, KitLook } from '../../lib/kit.svelte'
  import { mm } from '../../lib/format'
  import type { KitLadder, LadderAsk } from '../../lib/types'
  import EntryField from '../../parts/fields/EntryField.svelte'
  import KitLadderDrawing from '../../parts/kit/KitLadderDrawing.svelte'
  import KitSettings from '../../parts/kit/KitSettings.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const look = new KitLook<LadderAsk, KitLadder>(
    productionId,
    (bench, equipment) => {
      const body = equipment.bodies.find((b) =>
        b.modes.some((m) => m.formats.some((f) => f.id === bench.format_id)),
      )
      return {
        ...asOnBench(bench),
        planned: true,
        mounted: 'simplest',
        body_ids: body && equipment.bodies.length > 1 ? [body.id] : null,
        least_fps: null,
        gap_ratio: 1.45,
        double_percent: 3,
        base_format_id: bench.format_id,
      }
    },
    (ask, signal) => client.readLadder(productionId, ask, signal),
  )
  const answer = $derived(look.answer)
  const formats = $derived(
    look.equipment?.bodies.flatMap((b) =>
      b.modes.flatMap((m) => m.formats.map((f) => ({ id: f.id, name: `${f.name} (${b.name})` }))),
    ) ?? [],
  )
</script>

<NoticeBar
  what="package"
  problem={Object.keys(look.faults).length ? null : look.problem}
  onresolve={() => {}}
  onundo={null}
/>
{#if look.ask && look.equipment}
  <KitSettings
    ask={look.ask}
    package={look.equipment}
    planned={look.ask.planned ?? false}
    onchange={(part) => look.change(part)}
  />
  <div class="bar">
    <span class="item"
      ><span class="soft">Only formats that reach</span><EntryField
        label="Least rate"
        kind="number"
        size={5}
        value={look.ask.least_fps}
        placeholder="any"
        fault={look.faults['least_fps']}
        oninput={(value) => look.change({ least_fps: value as number | null })}
      />fps</span
    >
    <span class="item"
      ><span class="soft">A gap is a step of more than</span><EntryField
        label="Ratio of a gap"
        kind="number"
        size={6}
        value={look.ask.gap_ratio}
        fault={look.faults['gap_ratio']}
        oninput={(value) => look.change({ gap_ratio: value as number })}
      />×</span
    >
    <span class="item"
      ><span class="soft">doubles lie within</span><EntryField
        label="Per cent of a double"
        kind="number"
        size={3}
        value={look.ask.double_percent}
        fault={look.faults['double_percent']}
        oninput={(value) => look.change({ double_percent: value as number })}
      />%</span
    >
    {#if look.ask.format_ids}<button class="knob" onclick={() => look.change({ format_ids: null })}
        >All recording formats again</button
      >{/if}
    <label class="item"
      ><span class="soft">What to buy is told for</span>
      <Choice
        label="Format for which focal lengths to buy are told"
        options={namedOptions(formats)}
        value={look.ask.base_format_id ?? null}
        onchange={(base_format_id) => look.change({ base_format_id })}
      /></label
    >
  </div>
  {#if answer}
    <ul class="words">
      {#each answer.words as text (text)}<li>{text}</li>{/each}
    </ul>
    <KitLadderDrawing ladder={answer} ononly={(format_ids) => look.change({ format_ids })} />
    <div class="columns">
      <section aria-label="Gaps">
        <h2>Gaps</h2>
        {#each answer.gaps as gap (gap.from_mm)}
          <p>
            <strong class="figure">{mm(gap.from_mm)} – {mm(gap.to_mm)} mm</strong>
            <span class="warn">a step of {gap.ratio.toFixed(2)}</span>
          </p>
          <ul>
            {#if gap.buys.length}
              <li>
                Have {gap.buys
                  .map((b) =>
                    b.focal_mm === null
                      ? `${mm(b.effective_mm)} mm effective`
                      : `a ${b.focal_mm.toFixed(0)} mm`,
                  )
                  .join(', ')}{gap.buy_for ? ` for ${gap.buy_for}` : ''}.
              </li>
            {/if}
            {#each gap.elsewhere as e (e.lens_id + '.' + e.format_id)}
              <li>
                Or record {e.format} of {e.body}: {e.lens}{e.via ? ` with ${e.via}` : ''} makes {mm(
                  e.effective_mm,
                )} mm there.
              </li>
            {/each}
          </ul>
        {:else}<p class="soft">No step is wider than {look.ask.gap_ratio}×.</p>{/each}
      </section>
      <section aria-label="Doubles">
        <h2>The same field by more than one lens</h2>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <ul class="doubles" tabindex="0">
          {#each answer.doubles as d (d.effective_mm)}
            <li>
              <span class="figure">{mm(d.effective_mm)} mm</span>
              <span class="soft">{d.lenses.join(', ')}</span>
            </li>
          {:else}<li class="soft">None.</li>{/each}
        </ul>
      </section>
    </div>
  {/if}
{/if}

<style>
  .item {
    display: inline-flex;
    align-items: center;
    gap: 0.3rem;
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.4rem;
    padding: 4px 10px;
    background: var(--cell);
  }
  .words li:first-child {
    color: var(--accent);
  }
  .columns {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 4px 28px;
    font-size: 14px;
  }
  .doubles {
    max-height: 220px;
    overflow-y: auto;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
