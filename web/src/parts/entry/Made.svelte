<script lang="ts">
  import type { Anything } from '../../lib/types'

  interface Props {
    answer: Anything
  }
  let { answer }: Props = $props()
</script>

{#each answer.bodies as body, i (i)}
  <section aria-label="Body {body.name}">
    <h2>{body.name}</h2>
    <p class="soft">{body.facts.map((fact) => fact.text).join(' · ')}</p>
    {#each body.contradictions as { text }, k (k)}<p class="warn">{text}</p>{/each}
    <table>
      <thead><tr><th>Scan mode</th><th>Read</th><th>Recorded</th></tr></thead>
      <tbody>
        {#each body.modes as mode, n (n)}
          <tr>
            <th scope="row">{mode.name}</th>
            <td class="figure">{mode.told.split(' · ').slice(0, 2).join(', ')}</td>
            <td>
              {#each mode.recorded as told, k (k)}<span class="row">{told}</span>{:else}<span class="row soft"
                  >{mode.formats
                    .filter((format) => !format.why_not && !format.cuts)
                    .map((format) => format.name)
                    .join(', ')}</span
                >{/each}
              {#each mode.assumed as told, k (k)}<span class="row warn">{told}</span>{/each}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if body.told.length}<p>{body.told.join('; ')}.</p>{/if}
    {#each body.missing as told, k (k)}<p class="soft small">{told}</p>{/each}
  </section>
{/each}
{#if answer.lens_sets.length}
  <section aria-label="Lenses">
    {#each answer.lens_sets as set (set.key)}<h2>{set.name}</h2>{/each}
    <p>{answer.lenses_told[0]}</p>
    {#each answer.lenses_told.slice(1) as told, k (k)}<p class="soft small">{told}</p>{/each}
  </section>
{/if}
{#if answer.adapters.length || answer.filters.length || answer.mounts.length}
  <section aria-label="Mounts, adapters and filters">
    {#each answer.adapters as adapter (adapter.key)}<p>
        <strong>{adapter.name}</strong>
        <span class="soft"
          >an adapter from {adapter.lens_mount} to {adapter.body_mount}, {adapter.magnification}×</span
        >
      </p>{/each}
    {#if answer.filters.length}<p>{answer.filters.map((filter) => filter.name).join(', ')}</p>{/if}
    {#if answer.mounts.length}<p class="soft">
        Mounts that become the production’s, with their flange distance not stated: {answer.mounts
          .map((mount) => mount.name)
          .join(', ')}.
      </p>{/if}
  </section>
{/if}
{#each answer.faults as fault, i (i)}<p class="bad">
    <span class="figure">{fault.value}</span>
    {fault.rule}
  </p>{/each}
{#if answer.unused.length}
  <section aria-label="Not used">
    <h2>Not used</h2>
    {#each answer.unused as told, i (i)}<p class="soft small struck">{told}</p>{/each}
  </section>
{/if}

<style>
  section {
    display: grid;
    gap: 4px;
    padding-left: 10px;
    border-left: 2px solid var(--line);
  }
  h2 {
    font-size: 16px;
  }
  table {
    width: 100%;
    font-size: 14px;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 2px 10px 2px 0;
    vertical-align: top;
    text-align: left;
  }
  .row {
    display: block;
  }
  .small {
    font-size: 13px;
  }
  .struck {
    text-decoration: line-through;
  }
</style>
