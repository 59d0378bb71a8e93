<script lang="ts">
  import type { Combination, Package } from '../../lib/types'
  import { SIGNS } from '../../lib/verdicts'

  interface Props {
    package: Package
    combinations: Combination[]
  }
  let { package: equipment, combinations }: Props = $props()

  const by = $derived(new Map(combinations.map((c) => [`${c.lens_id}.${c.body_id}`, c])))
  let open = $state<string | null>(null)
  const shown = $derived(open === null ? undefined : by.get(open))
  const lensNames = $derived(
    new Map(equipment.lens_sets.flatMap((set) => set.lenses.map((lens) => [lens.id, lens.name]))),
  )
  const bodyNames = $derived(new Map(equipment.bodies.map((body) => [body.id, body.name])))
  const counts = $derived(
    (['possible', 'consequences', 'impossible'] as const).map((v) => ({
      verdict: v,
      count: combinations.filter((c) => c.verdict === v).length,
    })),
  )
</script>

<section aria-label="What goes on what">
  <h2>What goes on what</h2>
  <p class="soft counts">
    {#each counts as { verdict, count } (verdict)}<span class={SIGNS[verdict].look}
        >{SIGNS[verdict].sign} {count} {SIGNS[verdict].words}</span
      >
    {/each} Every lens on every body, mounted the simplest way; choose one for all its ways.
  </p>
  <div class="grid">
    <table>
      <caption class="sr-only">Lenses on bodies</caption>
      <thead>
        <tr>
          <th scope="col">Lens</th>
          {#each equipment.bodies as body (body.id)}<th scope="col"
              >{body.name} <span class="soft">{body.mount}</span></th
            >{/each}
        </tr>
      </thead>
      <tbody>
        {#each equipment.lens_sets as set (set.id)}
          <tr class="set-row"
            ><th scope="rowgroup" colspan={equipment.bodies.length + 1}
              >{set.name} <span class="soft">{set.maker}</span></th
            ></tr
          >
          {#each set.lenses as lens (lens.id)}
            <tr>
              <th scope="row">{lens.name} <span class="soft">{lens.mount}</span></th>
              {#each equipment.bodies as body (body.id)}
                {@const key = `${lens.id}.${body.id}`}
                {@const found = by.get(key)}
                <td>
                  {#if found}
                    {@const best = found.ways[0]}
                    <button
                      class="pick {SIGNS[found.verdict].look}"
                      aria-expanded={open === key}
                      onclick={() => (open = open === key ? null : key)}
                      >{SIGNS[found.verdict as 'possible'].sign}
                      {found.verdict === 'impossible' ? 'impossible' : best?.name}</button
                    >
                  {/if}
                </td>
              {/each}
            </tr>
            {#if shown && open?.startsWith(`${lens.id}.`)}
              <tr
                ><td colspan={equipment.bodies.length + 1} class="told">
                  <strong>{lensNames.get(shown.lens_id)} on {bodyNames.get(shown.body_id)}</strong>
                  {#each shown.ways as way (way.name)}
                    <p>
                      <span class={SIGNS[way.verdict].look}>{SIGNS[way.verdict].sign} {way.name}</span>:
                      {[...way.reasons, ...way.consequences].join('; ') || 'nothing to mind'}.
                    </p>
                  {/each}
                  {#if shown.why_not && shown.ways.length === 0}<p class="impossible">
                      {shown.why_not.charAt(0).toUpperCase()}{shown.why_not.slice(1)}.
                    </p>{/if}
                </td></tr
              >
            {/if}
          {/each}
        {/each}
      </tbody>
    </table>
  </div>
</section>

<style>
  section {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
    margin-top: 8px;
  }
  .counts {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.9rem;
  }
  .counts span {
    white-space: nowrap;
  }
  .set-row th {
    padding-top: 6px;
    color: var(--accent);
  }
  .pick {
    text-align: left;
    cursor: pointer;
  }
  .pick:hover {
    text-decoration: underline;
  }
  .told {
    white-space: normal !important;
    background: var(--cell);
    padding: 4px 10px !important;
  }
</style>
