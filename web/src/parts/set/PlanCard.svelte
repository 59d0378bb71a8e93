<script lang="ts">
  import { whenWords, aperture, distanceWithUnit, mm, rate } from '../../lib/format'
  import { trade } from '../../lib/trade.svelte'
  import type { Planned, Unit } from '../../lib/types'

  interface Props {
    planned: Planned
    next: Planned | null
    /** The plan that it comes from. */
    made: { name: string; made_at: string } | null
    unit: Unit
    onnext: () => void
  }
  let { planned, next, made, unit, onnext }: Props = $props()
  const on = $derived(planned.on)
  const switches = $derived(planned.switches.filter((each) => each.why_not === null || each.on))
  const short = (each: Planned) =>
    each.on
      ? [
          each.on.body,
          each.on.format,
          each.on.lens,
          each.on.stop ? `${each.marks}${aperture(each.on.stop)}` : '',
        ]
          .filter(Boolean)
          .join(' · ')
      : each.binds
</script>

<section class="plan" aria-label="What the plan says">
  <h2>
    Planned <span class="soft"
      >{planned.scene}{planned.unit ? `, camera ${planned.unit}` : ''}{made
        ? ` · ${made.name}, ${whenWords(made.made_at)}`
        : ''}</span
    >
  </h2>
  {#if planned.keep_out}<p class="caution" role="note">{planned.keep_out}</p>{/if}
  {#if on}
    {#if planned.verdict !== 'does' && planned.verdict !== 'depends'}<p class="bad">
        {planned.verdict === 'nearly' ? 'Nearly' : 'Not as wanted'}: {planned.binds}
      </p>{/if}
    {#if planned.provided.length}<p class="warn">If {planned.provided.join('; ')}</p>{/if}
    <dl>
      <dt>Body, mode</dt>
      <dd>
        {on.body}, {on.mode}{planned.megapixels ? ` (${planned.megapixels.toFixed(1)} MP)` : ''} → {on.format}
        {#if planned.mode_menu}<span class="soft">{planned.mode_menu}</span>{/if}
      </dd>
      <dt>Lens</dt>
      <dd>
        {planned.lens_told}{planned.is_zoom && on.focal_mm ? ` at ${mm(on.focal_mm)} mm` : ''}{on.adapters
          .length
          ? ` through ${on.adapters.join(' + ')}`
          : ''}
        {#if planned.effective_mm}<span class="soft">frames like {mm(planned.effective_mm)}</span>{/if}
      </dd>
      <dt>Stop</dt>
      <dd>{on.stop ? `${planned.marks}${aperture(on.stop)}` : 'as it comes'}</dd>
      <dt>Focus</dt>
      <dd>{on.focus_m ? distanceWithUnit(on.focus_m, unit) : 'not planned'}</dd>
      <dt>{trade.sensitivity}, ND</dt>
      <dd>
        {on.ei ?? 'not planned'}{on.ei === null ? '' : `, ${planned.nd_parts.join(' + ') || 'no ND'}`}
      </dd>
      <dt>Rate, shutter</dt>
      <dd>{rate(on.fps)} fps, {on.shutter_deg ? trade.shutter(on.shutter_deg, on.fps ?? 25) : '–'}</dd>
      {#if switches.length}
        <dt>Switches</dt>
        <dd>
          {#each switches as each (each.name)}
            <span class="switch"
              ><strong class={each.on ? 'ok' : ''}>{each.name} {each.on ? 'on' : 'off'}</strong>
              {#if each.menu}<span class="soft">{each.menu}</span>{/if}</span
            >
          {/each}
        </dd>
      {/if}
    </dl>
  {:else}
    <p>Nothing is chosen for this shot. {planned.binds}</p>
  {/if}
  {#each planned.cautions as caution (caution)}<p class="warn">{caution}</p>{/each}
  {#if planned.notes}<p class="soft">{planned.notes}</p>{/if}
  {#if next}
    <p class="next">
      <button class="knob" onclick={onnext}>Next: {next.name}</button>
      <span class="soft">{next.what} · {short(next)}</span>
    </p>
  {/if}
</section>

<style>
  .plan {
    display: grid;
    gap: 6px;
  }
  h2 {
    font-size: 16px;
  }
  h2 .soft {
    font-weight: 400;
  }
  dl {
    display: grid;
    grid-template-columns: 6.4em minmax(0, 1fr);
    gap: 2px 8px;
    font-size: 15px;
  }
  dt {
    color: var(--ink-soft);
  }
  dd .soft,
  .switch {
    display: block;
    font-size: 13.5px;
  }
  .caution {
    padding: 6px 10px;
    border: 1px solid var(--warn);
    color: var(--warn);
  }
  .next {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
</style>
