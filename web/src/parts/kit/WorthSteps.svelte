<script lang="ts">
  import { distanceWithUnit, percent } from '../../lib/format'
  import { money } from '../../lib/packing'
  import type { Unit, Worth } from '../../lib/types'
  import { weightWords } from '../../lib/weights'
  import { HAVE, lensWords, thingWords } from '../../lib/worth'
  import FinderDrawing from '../drawings/FinderDrawing.svelte'

  interface Props {
    answer: Worth
    unit: Unit
  }
  let { answer, unit }: Props = $props()
  const rows = $derived(new Map(answer.rows.map((row) => [row.key, row])))
  const small = (value: number) => Math.round(value * 100) / 100
</script>

{#if answer.steps.length}
  <ol aria-label="Steps upwards from what costs least">
    {#each answer.steps as step, n (step.key)}
      {@const row = rows.get(step.key)}
      <li>
        <div class="frame">
          {#if step.viewfinder}<FinderDrawing view={step.viewfinder} compact />{/if}
        </div>
        {#if row}
          {@const before = rows.get(answer.steps[n - 1]?.key ?? '')}
          <svg
            viewBox="0 0 100 10"
            role="img"
            aria-label="The disc of the light against the width of the picture, to scale"
          >
            <path d="M0.3 1V9M0.3 5H99.7M99.7 1V9" class="width" />
            {#if before}<ellipse
                cx="50"
                cy="5"
                rx={before.blur_percent / 2 / before.squeeze}
                ry={before.blur_percent / 2}
                class="before"
              />{/if}
            <ellipse
              cx="50"
              cy="5"
              rx={row.blur_percent / 2 / row.squeeze}
              ry={row.blur_percent / 2}
              class="disc"
            />
          </svg>
        {/if}
        <p class="head">
          <strong>{row ? lensWords(row) : ''}</strong>
          <span class="figure accent"
            >{n === 0
              ? row && step.cost === 0
                ? HAVE[row.have].words
                : money(step.cost, answer.currency)
              : `+${money(step.more, answer.currency)}`}</span
          >
        </p>
        <p class="soft">
          {row?.choice.body ?? ''}{row?.choice.adapters.length ? `, ${row.choice.adapters.join(', ')}` : ''}
        </p>
        <p class="figure">
          {#if row}blur {small(row.blur_percent)} %{row.choice.distance_m === null
              ? ''
              : ` from ${distanceWithUnit(row.choice.distance_m, unit)}`}{row.weight_kg === null
              ? ''
              : `, ${weightWords(row.weight_kg, unit)}`}{/if}
        </p>
        {#if row}
          <ul class="why" aria-label="What it takes">
            {#each row.things as thing (thing.kind + thing.name)}<li>
                {thingWords(thing, answer.currency)}
              </li>{/each}
          </ul>
        {/if}
        {#if n > 0 && step.softer_percent !== null}
          <dl>
            <div>
              <dt>blur</dt>
              <dd class="figure">{percent(step.softer_percent, 0)}</dd>
            </div>
            <div>
              <dt>field</dt>
              <dd class="figure">
                {Math.abs(step.nearer_percent ?? 0) < 0.5
                  ? 'alike'
                  : `${Math.abs(step.nearer_percent ?? 0).toFixed(0)} % ${(step.nearer_percent ?? 0) > 0 ? 'nearer' : 'farther off'}`}
              </dd>
            </div>
            {#if step.heavier_percent !== null}<div>
                <dt>weight</dt>
                <dd class="figure">{percent(step.heavier_percent, 0)}</dd>
              </div>{/if}
            {#if step.each_percent !== null}<div>
                <dt>each per cent</dt>
                <dd class="figure">{money(small(step.each_percent), answer.currency)}</dd>
              </div>{/if}
          </dl>
          <ul class="why" aria-label="Why the blur differs">
            {#each step.why as why (why.name)}<li>
                <span class="figure">{percent(why.percent, 0)}</span>
                {why.told}
              </li>{/each}
          </ul>
        {/if}
      </li>
    {/each}
  </ol>
{/if}

<style>
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 14px;
    margin-block: 8px;
  }
  ol > li {
    flex: 1 1 230px;
    max-width: 340px;
    padding: 6px;
    border: 1px solid var(--line);
    font-size: 14px;
  }
  .frame {
    display: grid;
    height: 150px;
    overflow: hidden;
  }
  .frame :global(figure) {
    min-height: 0;
    padding: 0;
    border: 0;
  }
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  .width {
    fill: none;
    stroke: var(--ink-soft);
    stroke-width: 0.4;
  }
  .disc {
    fill: var(--accent);
    opacity: 0.7;
  }
  .before {
    fill: none;
    stroke: var(--ink);
    stroke-width: 0.4;
    stroke-dasharray: 1 0.7;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
  }
  .accent {
    color: var(--accent);
  }
  dl div {
    display: flex;
    justify-content: space-between;
    border-bottom: 1px solid var(--line);
  }
  .why .figure {
    margin-right: 0.3em;
  }
  .why {
    margin-top: 4px;
    font-size: 13px;
    color: var(--ink-soft);
  }
</style>
