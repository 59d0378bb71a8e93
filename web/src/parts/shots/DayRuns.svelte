<script lang="ts">
  import type { ListedShots } from '../../lib/types'

  interface Props {
    days: ListedShots['days']
  }
  let { days }: Props = $props()

  const changes = (n: number, what: string) => `${n} ${what} change${n === 1 ? '' : 's'}`
</script>

<section aria-label="Lenses in shooting order">
  {#each days as day (`${day.day}/${day.unit}`)}
    <p>
      {day.day ? `Day ${day.day}` : 'No day'}{day.unit ? `, camera ${day.unit}` : ''}
      <span class="soft"
        >{day.shots} shot{day.shots === 1 ? '' : 's'} · {changes(day.lens_changes, 'lens')} · {changes(
          day.format_changes,
          'format',
        )} · {changes(day.body_changes, 'body')}</span
      >
    </p>
    <ol>
      {#each day.runs as run, i (i)}<li style:flex-grow={run.shots}>
          {run.name}{run.shots > 1 ? ` ×${run.shots}` : ''}
        </li>{/each}
    </ol>
  {/each}
</section>

<style>
  section {
    display: grid;
    gap: 2px;
    font-size: 13px;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 5px;
  }
  li {
    flex: 1 1 5.5rem;
    max-width: 16rem;
    padding: 1px 6px;
    background: var(--cell);
    border-left: 2px solid var(--line-strong);
    white-space: nowrap;
  }
</style>
