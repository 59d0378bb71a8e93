<script lang="ts">
  import type { Snippet } from 'svelte'
  import { distanceWithUnit, mm, rate } from '../../lib/format'
  import { ndStops } from '../../lib/light'
  import { trade } from '../../lib/trade.svelte'
  import { partOf, VERDICTS } from '../../lib/shotList'
  import type {
    FinderView,
    ListedAnswer,
    Shot,
    ShotAnswer,
    ShotChange,
    ShotChoice,
    Unit,
  } from '../../lib/types'
  import FinderDrawing from '../drawings/FinderDrawing.svelte'
  import { lensWords, NEEDS, stopWords, type Need } from './shotColumns'

  interface Props {
    shot: Shot
    answer: ListedAnswer | undefined
    /** The same with all reasons; null while it is asked for. */
    whole: ShotAnswer | null
    view: FinderView | undefined
    unit: Unit
    /** What it is told to frame like: the production's reference. */
    against: string
    /** With what the shot could be made; null while it is looked for. */
    changes: ShotChange[] | null
    /** Takes a change that is one of the shot's own cells. */
    onapply: (part: Partial<Shot>) => void
    /** What the catalogue would do besides, once it was asked. */
    rented: ShotAnswer | null
    onwish: (need: Need, weight: number | null) => void
    onpin: (choice: ShotChoice | null) => void
    onrent: () => void
    /** What leads elsewhere: the Bench, a comparison. */
    ways: Snippet
  }
  let {
    shot,
    answer,
    whole,
    view,
    unit,
    against,
    changes,
    onapply,
    rented,
    onwish,
    onpin,
    onrent,
    ways,
  }: Props = $props()

  const best = $derived(answer?.best)
  const verdict = $derived(answer && VERDICTS[answer.verdict])
  const asked = $derived(NEEDS.filter((need) => shot[need.key].trim() !== ''))
  const exposure = $derived(
    best && best.ei !== null
      ? [
          trade.ei(best.ei),
          best.nd_stops ? `ND ${ndStops(best.nd_stops)} (${best.nd_parts.join(' + ')})` : 'no ND',
          `${rate(best.fps)} fps, ${trade.shutter(best.shutter_deg, best.fps)}`,
        ].join(', ')
      : null,
  )
  const reasons = $derived(
    whole?.reasons.filter((reason) => reason.name !== 'main' && (!reason.met || !reason.must)) ?? [],
  )
  const withWhat = (choice: ShotChoice) =>
    [lensWords(choice), choice.adapters.length ? `(${choice.adapters.join(' + ')})` : '', 'on', `${choice.body},`, choice.format]
      .filter(Boolean)
      .join(' ') // prettier-ignore
</script>

<section aria-label="Shot {shot.name}">
  <div class="head">
    <h2>{shot.name} {shot.what}</h2>
    <span class="soft"
      >{[shot.scene, shot.day && `day ${shot.day}`, shot.unit && `camera ${shot.unit}`]
        .filter(Boolean)
        .join(' · ')}</span
    >
  </div>
  {#if view}<div class="picture"><FinderDrawing {view} compact /></div>{/if}
  {#if verdict && answer}
    <p class="verdict {verdict.look}"><strong>{verdict.sign} {verdict.words}</strong></p>
    <dl>
      {#if best}
        <dt class="soft">has</dt>
        <dd>
          {withWhat(best)}, <span class="figure">{stopWords(best)}</span>
          {#if best.distance_m !== null}from <span class="figure"
              >{distanceWithUnit(best.distance_m, unit)}</span
            >{/if}{#if best.focus_m !== null}, focus at <span class="figure"
              >{distanceWithUnit(best.focus_m, unit)}</span
            >{/if}
        </dd>
        <dt class="soft">frames</dt>
        <dd>
          {#if best.effective_mm !== null}like <span class="figure accent">{mm(best.effective_mm)} mm</span>
            on
            {against}{/if}{#if best.field_width_m !== null}, <span class="figure"
              >{distanceWithUnit(best.field_width_m, unit)}</span
            >
            wide{/if}{#if best.percent !== null && Math.abs(best.percent) >= 0.5}, {Math.abs(
              best.percent,
            ).toFixed(0)} % {best.percent > 0 ? 'wider' : 'tighter'} than wanted{/if}
        </dd>
      {/if}
      {#if whole?.provided.length}
        <dt class="soft">if</dt>
        <dd>
          <ul>
            {#each whole.provided as told, k (k)}<li class="warn">{told}</li>{/each}
          </ul>
        </dd>
      {/if}
      <dt class="soft">binds</dt>
      <dd class={verdict.look === 'ok' ? '' : verdict.look}>{answer.binds || 'nothing is asked yet'}</dd>
      {#if ['depends', 'nearly', 'cannot'].includes(answer.verdict)}
        <dt class="soft">would work with</dt>
        <dd>
          {#if changes === null}
            <span class="soft">looking for what would work …</span>
          {:else if !changes.length}
            <span class="soft">No change of one or two needs makes it: see what limits it above.</span>
          {:else}
            <ul>
              {#each changes as change (change.text)}
                {@const part = partOf(shot, change)}
                <li>
                  {change.text}
                  {#if part}<button class="knob" onclick={() => onapply(part)}>Apply</button>{/if}
                </li>
              {/each}
            </ul>
          {/if}
        </dd>
      {/if}
      {#if whole?.runner_up}
        <dt class="soft">runner-up</dt>
        <dd>
          {withWhat(whole.runner_up)} <span class="soft">({whole.runner_up_lacks})</span>
        </dd>
      {/if}
      {#if exposure}<dt class="soft">exposure</dt>
        <dd>{exposure}</dd>{/if}
      {#if asked.length}
        <dt class="soft">needs</dt>
        <dd class="needs">
          {#each asked as need (need.key)}
            {@const wish = shot.wishes[need.key]}
            <label class="item"
              ><input
                type="checkbox"
                checked={wish === undefined}
                onchange={(event) => onwish(need.key, event.currentTarget.checked ? null : 1)}
              />
              <span class="soft">{need.title}</span>
              {shot[need.key]}
              {#if wish !== undefined}<span class="soft">wish</span>
                <select
                  aria-label="Weight of {need.title}"
                  value={String(wish)}
                  onchange={(event) => onwish(need.key, Number(event.currentTarget.value))}
                >
                  {#each ['0.5', '1', '2', '3'] as weight (weight)}<option value={weight}>×{weight}</option
                    >{/each}
                </select>{:else}<span class="soft">must</span>{/if}</label
            >
          {/each}
        </dd>
      {/if}
      {#if reasons.length}
        <dt class="soft">judged</dt>
        <dd>
          <ul>
            {#each reasons as reason, i (i)}
              <li class={reason.met ? 'ok' : reason.must ? 'bad' : 'warn'}>
                {reason.met ? '✓' : '✗'}
                {reason.wanted}: {reason.has}
              </li>
            {/each}
          </ul>
        </dd>
      {/if}
    </dl>
    {#if whole?.plan?.told}<p class={whole.plan.state === 'otherwise' ? 'warn' : 'soft'}>
        {whole.plan.told}
      </p>{/if}
    {#if answer.off_main}<p class="warn">{answer.off_main}</p>{/if}
    {#if whole?.pinned}<p class={whole.pinned.startsWith('Pinned, and') ? 'soft' : 'warn'}>
        {whole.pinned}
      </p>{/if}
    {#each whole?.warnings ?? [] as warning (warning.text)}<p class="warn">{warning.text}</p>{/each}
    {#if shot.notes}<p>{shot.notes}</p>{/if}
    <div class="bar">
      {#if shot.pin}<button class="knob" onclick={() => onpin(null)}>Let the choice go</button>
      {:else if best}<button class="knob" onclick={() => onpin(best)}>Keep this choice</button>{/if}
      {@render ways()}
      {#if answer.verdict !== 'does' && answer.verdict !== 'open'}<button class="knob" onclick={onrent}
          >What would have to be rented?</button
        >{/if}
    </div>
    {#if rented}
      <p class={VERDICTS[rented.verdict].look}>
        {#if rented.best && rented.verdict !== 'cannot'}With the catalogue: {withWhat(rented.best)}
          {{ nearly: 'nearly does it', depends: 'may do it' }[String(rented.verdict)] ??
            'does it'}.{:else}Nothing in the catalogue does it either: {rented.binds}.{/if}
      </p>
    {/if}
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 6px;
    align-content: start;
    min-width: 0;
    padding: 8px 10px;
    border: 1px solid var(--line-strong);
    font-size: 14px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 1rem;
  }
  h2 {
    font-size: 15px;
  }
  .picture {
    display: grid;
    height: 190px;
  }
  .picture :global(figure) {
    border: 0;
    padding: 0;
  }
  dl {
    display: grid;
    grid-template-columns: 5.2rem minmax(0, 1fr);
    gap: 3px 8px;
  }
  dd {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: start;
    padding: 1px 0;
  }
  .needs {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 1rem;
  }
  .accent {
    color: var(--accent);
  }
  input {
    accent-color: var(--accent);
  }
</style>
