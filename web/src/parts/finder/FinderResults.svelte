<script lang="ts">
  import { megabytes, mm } from '../../lib/format'
  import type { FinderAnswer } from '../../lib/types'

  interface Props {
    answer: FinderAnswer
    /** Where a recording format is shown on the Bench. */
    hrefOf: (formatId: number) => string
  }
  let { answer, hrefOf }: Props = $props()
  let all = $state(false)
  const MANY = 60
  const rejected = $derived(all ? answer.rejected : answer.rejected.slice(0, MANY))
  const total = $derived(answer.ranked.length + answer.rejected.length)
</script>

<p class="count" role="status">
  <strong>{answer.ranked.length}</strong> of {total} recording formats can do it
</p>
{#if answer.empty}<p class="empty" role="alert">{answer.empty}</p>{/if}
<ol class="ranked">
  {#each answer.ranked as row (row.format_id)}
    {@const wishes = row.reasons.filter((r) => !r.must)}
    <li>
      <span class="rank figure">{row.rank}</span>
      <div>
        <p class="title">
          {#if row.from_catalogue}{row.format} <span class="warn">to rent</span>
          {:else}<a href={hrefOf(row.format_id)} title="Show it on the Bench">{row.format}</a>{/if}
          <span class="soft">{row.body}, {row.mode}</span>
          <span class="figure small facts"
            >{mm(row.picture_width_mm)} mm wide · {row.oversampling.toFixed(2)}× · {row.rate_text} fps · {megabytes(
              row.mb_s,
            )} MB/s</span
          >
        </p>
        <p class="why">
          {#each row.reasons.filter((r) => r.must) as r (r.name)}<span class="ok">✓ {r.has}</span>{/each}
          {#each wishes as r (r.name)}
            {#if r.met}<span class="ok">✓ {r.has} <span class="soft">×{r.weight}</span></span>
            {:else}<span class="warn"
                >{r.has}, wanted {r.wanted}: {(100 * r.share).toFixed(0)} %
                <span class="soft">×{r.weight}</span></span
              >{/if}
          {/each}
          {#if row.tie}<span class="soft">same score as the one above, which has {row.tie}</span>{/if}
        </p>
      </div>
      <span class="score" title="Share of the weighted wishes that it meets">
        <span class="beam" aria-hidden="true"><span style:width="{100 * row.score}%"></span></span>
        <span class="figure">{(100 * row.score).toFixed(0)} %</span>
      </span>
    </li>
  {/each}
</ol>
{#if answer.rejected.length}
  <h2>Not possible like this <span class="soft">{answer.rejected.length}</span></h2>
  <ul class="rejected">
    {#each rejected as row (row.format_id)}
      <li>
        <p class="title">
          {row.format}
          {#if row.from_catalogue}<span class="warn">to rent</span>{/if}
          <span class="soft">{row.body}, {row.mode}</span>
        </p>
        <p class="bad">
          {#each row.fails as fail, i (i)}{i ? '; ' : '✗ '}{fail}{/each}
        </p>
        {#if row.changes.length}
          <p class="soft">
            It would do with {#each row.changes as change, i (i)}{i ? ', or ' : ''}<span class="change"
                >{change}</span
              >{/each}.
          </p>
        {:else}<p class="soft">No single change of this body brings it in.</p>{/if}
      </li>
    {/each}
  </ul>
  {#if answer.rejected.length > MANY && !all}
    <button class="knob" onclick={() => (all = true)}>Show all {answer.rejected.length}</button>
  {/if}
{/if}

<style>
  .count strong {
    color: var(--accent);
    font-weight: 500;
    font-size: 19px;
  }
  .empty {
    padding: 6px 10px;
    border: 1px solid var(--warn);
    border-left-width: 4px;
    color: var(--warn);
  }
  .ranked li {
    display: grid;
    grid-template-columns: 2.2rem minmax(0, 1fr) 128px;
    gap: 0 0.6rem;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
  }
  .rank {
    text-align: right;
    color: var(--ink-soft);
  }
  .title {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    align-items: baseline;
  }
  .title a {
    border-bottom: 1px dotted var(--line-strong);
  }
  .title a:hover {
    border-bottom-color: var(--accent);
  }
  .small {
    font-size: 12.5px;
  }
  .facts {
    margin-left: auto;
    color: var(--ink-soft);
  }
  .why {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    font-size: 13.5px;
  }
  .score {
    display: inline-flex;
    align-items: center;
    justify-content: flex-end;
    gap: 0.5rem;
  }
  .beam {
    width: 66px;
    height: 9px;
    border-inline: 1px solid var(--line-strong);
  }
  .beam span {
    display: block;
    height: 100%;
    background: var(--accent);
  }
  h2 {
    margin-top: 12px;
    font-weight: 500;
  }
  .rejected {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
    gap: 0 22px;
    font-size: 14px;
  }
  .rejected li {
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
  }
  .change {
    color: var(--ink);
  }
  @media (max-width: 560px) {
    .ranked li {
      grid-template-columns: 1.6rem minmax(0, 1fr);
    }
    .score {
      grid-column: 2;
      justify-content: start;
    }
    .facts {
      margin-left: 0;
    }
    .rejected {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
