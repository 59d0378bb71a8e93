<script lang="ts">
  import type { Snippet } from 'svelte'
  import { whenWords } from '../../lib/format'
  import type { PlanState } from '../../lib/types'

  interface Props {
    plan: PlanState
    /** Where a kit, or a shot, is looked at. */
    kitAddress: (key: string) => string
    shotAddress: (key: string) => string
    /** What can be done with it. */
    ways: Snippet
  }
  let { plan, kitAddress, shotAddress, ways }: Props = $props()

  const lists = $derived(
    [
      { title: 'Pinned otherwise', rows: plan.pinned },
      { title: 'Made otherwise', rows: plan.otherwise },
      { title: 'Nothing in it for', rows: plan.without },
    ].filter((list) => list.rows.length > 0),
  )
  const agrees = $derived(
    !plan.pinned.length &&
      !plan.otherwise.length &&
      !plan.papers.length &&
      !plan.gone.length &&
      !plan.kit_now &&
      plan.made_at !== null,
  )
</script>

<section aria-label="The plan">
  {#if plan.made_at === null}
    <p>
      <span class="soft">No kit is the plan yet: each page takes what is best for each shot by itself.</span>
      {@render ways()}
    </p>
  {:else}
    <p>
      <strong>The plan</strong> is <a class="link" href={kitAddress(plan.kit)}>{plan.name}</a>
      <span class="soft">since {whenWords(plan.made_at)}:</span>
      {plan.shots} of {plan.of} shots, {plan.things.length} things.
      {#if agrees}<span class="ok">Nothing changed since.</span>{/if}
      {@render ways()}
    </p>
    {#if plan.kit_now}<p class="warn">The kit is another now: it {plan.kit_now}.</p>{/if}
    {#if plan.gone.length}<p class="warn">Not in the package any more: {plan.gone.join(', ')}.</p>{/if}
    {#each lists as list (list.title)}
      <details>
        <summary class="warn">{list.title}: {list.rows.length}</summary>
        <ul>
          {#each list.rows as row (row.key)}<li>
              <a class="link" href={shotAddress(row.key)}>{row.name}</a>
              {row.told}
            </li>{/each}
        </ul>
      </details>
    {/each}
    {#if plan.papers.length}
      <details>
        <summary class="warn">Printed before it: {plan.papers.length}</summary>
        <ul>
          {#each plan.papers as paper (paper.bundle + paper.name)}<li>
              {paper.name} <span class="soft">({paper.bundle}, {whenWords(paper.made_at)})</span>
              {paper.given_to ? `is with ${paper.given_to}` : ''}
            </li>{/each}
        </ul>
      </details>
    {/if}
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 2px;
    font-size: 14px;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
  }
  li {
    padding: 1px 0;
  }
</style>
