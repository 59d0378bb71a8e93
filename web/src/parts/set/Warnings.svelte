<script lang="ts">
  import type { Difference } from '../../lib/types'

  interface Props {
    differences: readonly Difference[]
    /** Since when each holds, by its code and what is used; where a camera tells it. */
    since?: Record<string, string>
    /** All that changes the exposure, in words. */
    light?: string
  }
  let { differences, since = {}, light = '' }: Props = $props()
  const loud = $derived(differences.filter((each) => each.headline))
  const quiet = $derived(differences.filter((each) => !each.headline))
</script>

{#each loud as each (each.code + each.name)}
  <section class="loud" role="alert">
    <h2>{each.headline}</h2>
    <p>
      {since[each.code] ? `Since ${since[each.code]}: ` : ''}{each.effects.length
        ? `${each.effects.join('; ')}.`
        : `${each.used} for ${each.planned}.`}
    </p>
    {#if each.menu}<p class="menu">{each.menu}</p>{/if}
  </section>
{/each}
{#if quiet.length}
  <ul class="quiet" aria-label="Differs from the plan">
    {#each quiet as each (each.code + each.name)}
      <li>
        <strong>{each.name}</strong>
        <span>{each.used} for {each.planned}{each.effects.length ? `: ${each.effects.join(', ')}` : ''}.</span
        >
      </li>
    {/each}
  </ul>
{/if}
{#if light}<p class="warn">{light}</p>{/if}

<style>
  .loud {
    display: grid;
    gap: 3px;
    padding: 10px 12px;
    border: 2px solid var(--bad);
    background: repeating-linear-gradient(
      135deg,
      color-mix(in srgb, var(--bad) 16%, var(--ground)) 0 9px,
      color-mix(in srgb, var(--bad) 9%, var(--ground)) 9px 18px
    );
  }
  h2 {
    font-size: clamp(22px, 6.2vw, 30px);
    font-weight: 600;
    line-height: 1.12;
    color: var(--bad);
  }
  .loud p {
    font-size: 17px;
  }
  .loud .menu {
    font-size: 15px;
    color: var(--ink-soft);
  }
  .quiet {
    display: grid;
    gap: 4px;
    padding: 6px 10px;
    border-left: 3px solid var(--warn);
    font-size: 15.5px;
  }
  .quiet strong {
    color: var(--warn);
  }
</style>
