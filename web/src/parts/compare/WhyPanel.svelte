<script lang="ts">
  import { PART_NAMES } from '../../lib/compared'
  import { distanceWithUnit } from '../../lib/format'
  import type { Unit, Why } from '../../lib/types'

  interface Props {
    why: Why | null
    summary: { matches: string[]; differs: string[] }
    name: string
    /** The set-up that it is held against. */
    master: string
    unit: Unit
  }
  let { why, summary, name, master, unit }: Props = $props()

  type Share = Why['depth'][number]
  function figure(part: Share['part'], value: number): string {
    if (part === 'distance_mm') return distanceWithUnit(value / 1000, unit)
    if (part === 'f_number') return `f/${value.toFixed(2)}`
    if (part === 'coc_mm') return `${(1000 * value).toFixed(1)} µm`
    return `${value.toFixed(1)} mm`
  }
  const times = (value: number | null) => (value === null ? '–' : `×${value.toFixed(2)}`)
  // Bars on a scale of ratios: half and double are as long.
  const reach = $derived(
    Math.max(
      1,
      ...[...(why?.depth ?? []), ...(why?.blur ?? [])].map((s) => Math.abs(Math.log2(s.factor ?? 1))),
      Math.abs(Math.log2(why?.depth_factor ?? 1)),
      Math.abs(Math.log2(why?.blur_factor ?? 1)),
    ),
  )
  const bar = (factor: number | null) => (Math.log2(factor ?? 1) / reach) * 46
</script>

{#snippet rows(title: string, whole: number, shares: Share[])}
  <tbody>
    <tr class="whole"
      ><th scope="row">{title}</th><td></td><td class="n figure">{times(whole)}</td><td
        >{@render drawn(whole)}</td
      ></tr
    >
    {#each shares as s (s.part)}
      <tr class:same={s.before === s.after}>
        <th scope="row">{PART_NAMES[s.part]}</th>
        <td class="figure"
          >{s.before === s.after
            ? 'the same'
            : `${figure(s.part, s.before)} → ${figure(s.part, s.after)}`}</td
        >
        <td class="n figure">{times(s.factor)}</td>
        <td>{@render drawn(s.factor)}</td>
      </tr>
    {/each}
  </tbody>
{/snippet}
{#snippet drawn(factor: number | null)}
  <svg width="96" height="12" aria-hidden="true"
    ><line x1="48" x2="48" y1="0" y2="12" /><rect
      x={Math.min(48, 48 + bar(factor))}
      y="2"
      width={Math.max(Math.abs(bar(factor)), 0.5)}
      height="8"
    /></svg
  >
{/snippet}

<section class="panel" aria-label="Why {name} differs">
  <h2>{name} against {master}</h2>
  <p>
    {#if summary.matches.length}<span class="ok">✓ Matches: {summary.matches.join(', ')}.</span>{/if}
    {#if summary.differs.length}<span class="warn">≠ Does not: {summary.differs.join(', ')}.</span>{/if}
  </p>
  {#if why}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="wide" role="group" aria-label="The parts" tabindex="0">
      <table class="figures plain">
        {@render rows(why.in_dioptres ? 'Depth, in dioptres' : 'Depth', why.depth_factor, why.depth)}
        {@render rows('Blur at infinity, of the width', why.blur_factor, why.blur)}
      </table>
    </div>
  {:else}<p class="soft">Depth cannot be told for one of them.</p>{/if}
</section>

<style>
  h2 {
    font-size: 15px;
    font-weight: 500;
  }
  .whole :is(th, td) {
    padding-top: 5px;
    color: var(--accent);
  }
  .same :is(th, td) {
    color: var(--ink-soft);
  }
  line {
    stroke: var(--line-strong);
  }
  rect {
    fill: var(--light);
  }
</style>
