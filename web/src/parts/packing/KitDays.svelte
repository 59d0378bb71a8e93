<script lang="ts">
  import { count } from '../../lib/packing'
  import type { KitAnswer } from '../../lib/types'

  interface Props {
    kit: KitAnswer
    onshot: (key: string) => void
    /** Puts the shots of a day in the order that needs fewer changes. */
    onorder: (keys: string[]) => void
  }
  let { kit, onshot, onorder }: Props = $props()

  type Setup = KitAnswer['days'][number]['setups'][number]
  /** Setups in a row with the same lens on the same body. */
  function runs(setups: readonly Setup[]): Setup[][] {
    const found: Setup[][] = []
    for (const setup of setups) {
      const last = found.at(-1)
      if (last && !setup.changed.includes('lens') && !setup.changed.includes('body')) last.push(setup)
      else found.push([setup])
    }
    return found
  }
  const minutesOf = (run: readonly Setup[]) => run[0]?.minutes ?? 0
  const nameOf = (key: string) => kit.shots.find((shot) => shot.key === key)?.name ?? ''
</script>

<section aria-label="The days">
  <h2>
    The days <span class="soft"
      >{count(kit.changes, 'change')} of lens or body, about {Math.round(kit.minutes)} minutes in all</span
    >
  </h2>
  {#each kit.days as day (`${day.day}/${day.unit}`)}
    <div class="day">
      <p>
        {day.day ? `Day ${day.day}` : 'No day'}{day.unit ? `, ${day.unit}` : ''}
        <span class="soft">{count(day.changes, 'change')}, {Math.round(day.minutes)} min</span>
        {#if day.apart}<span class="warn" title="Another unit works at the same time">own things</span>{/if}
      </p>
      <ol>
        {#each runs(day.setups) as run, i (i)}
          <li style:flex-grow={run.length}>
            {#if i > 0}<span class="change" title={run[0]?.changed.join(', ')}
                >{run[0]?.changed.filter((what) => what !== 'mode').join(', ')}
                {#if minutesOf(run)}<span class="figure">{minutesOf(run)} min</span>{/if}</span
              >{/if}
            <span class="with">{run[0]?.lens}</span>
            <span class="soft">{run[0]?.body}</span>
            <span class="shots">
              {#each run as setup (setup.key)}<button
                  class="link"
                  title="{setup.mode}, {setup.format}"
                  onclick={() => onshot(setup.key)}
                  >{setup.name}{#if setup.changed.includes('mode')}<span
                      class="soft"
                      title="another scan mode">*</span
                    >{/if}</button
                >{/each}
            </span>
          </li>
        {/each}
      </ol>
      {#if day.better_changes !== null}
        <p class="better">
          <span class="ok">{count(day.better_changes, 'change')}</span> in this order:
          {day.better_order.map(nameOf).join(', ')}
          <button class="knob small" onclick={() => onorder(day.better_order)}
            >Put the shots in this order</button
          >
        </p>
      {/if}
    </div>
  {/each}
</section>

<style>
  section {
    display: grid;
    gap: 4px;
    font-size: 13px;
    min-width: 0;
  }
  h2 {
    font-size: 15px;
  }
  .day {
    display: grid;
    grid-template-columns: 9.5rem minmax(0, 1fr);
    gap: 0 10px;
    align-items: start;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 8px;
    align-items: baseline;
    flex: 1 1 7rem;
    padding: 1px 6px;
    background: var(--cell);
    border-left: 2px solid var(--line-strong);
  }
  .change {
    flex-basis: 100%;
    color: var(--warn);
    font-size: 12px;
  }
  .with {
    white-space: nowrap;
  }
  .shots {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 6px;
  }
  .better {
    grid-column: 2;
  }
  @media (max-width: 700px) {
    .day {
      grid-template-columns: minmax(0, 1fr);
    }
    .better {
      grid-column: 1;
    }
  }
</style>
