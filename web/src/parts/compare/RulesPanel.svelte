<script lang="ts">
  import type { CompareView } from '../../lib/types'

  interface Props {
    rules: NonNullable<CompareView['rules']>
    /** The set-up whose stop counts. */
    master: string
  }
  let { rules, master }: Props = $props()
  const SIGNS = { less: '▾ less', same: '= the same', more: '▴ more' }
</script>

<section class="panel" aria-label="Does a bigger sensor give less depth?">
  <h2>Does a bigger sensor give less depth?</h2>
  {#if rules.same_size}
    <p class="soft">Both pictures are of one size on the sensor.</p>
  {:else}
    <p>
      {rules.bigger} against {rules.smaller}, at {master}'s stop. It depends on what stays the same, and on
      what counts as sharp:
    </p>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="wide" role="group" aria-label="Every rule in every case" tabindex="0">
      <table class="figures">
        <thead
          ><tr
            ><th>Sharp to</th>{#each rules.cases as name (name)}<th>{name}</th>{/each}</tr
          ></thead
        >
        <tbody>
          {#each rules.rows as row (row.rule)}
            <tr
              ><th scope="row">{row.rule}</th>{#each row.cells as cell, i (i)}<td class={cell?.answer}
                  >{cell ? SIGNS[cell.answer] : '–'}
                  {#if cell && cell.answer !== 'same'}<span class="figure">×{cell.ratio.toFixed(2)}</span
                    >{/if}</td
                >{/each}</tr
            >
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  h2 {
    font-size: 15px;
    font-weight: 500;
  }
  .less {
    color: var(--light);
  }
  .more {
    color: var(--accent);
  }
</style>
