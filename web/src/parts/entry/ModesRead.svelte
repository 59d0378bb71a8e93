<script lang="ts">
  import type { QuickBody } from '../../lib/types'

  interface Props {
    answer: QuickBody
    /** Recording formats that are ticked. */
    formats: readonly string[]
  }
  let { answer, formats }: Props = $props()
  const leftOut = $derived(answer.columns.filter((column) => column.taken_for === null))
  const understood = $derived(answer.columns.filter((column) => column.taken_for !== null))
</script>

{#if understood.length}
  <p class="soft">
    A table: {understood.map((c) => `${c.title} as ${c.taken_for}`).join(', ')}.
    {#if leftOut.length}<span class="warn"
        >Not understood, and left out: {leftOut.map((c) => c.title).join(', ')}.</span
      >{/if}
  </p>
{/if}
<ol>
  {#each answer.modes as mode, i (i)}
    <li>
      <strong>{mode.name}</strong>
      {#if mode.fault}<span class="bad">{mode.fault}</span>
      {:else if mode.told}<span class="figure">{mode.told}</span>
        <span class="formats">
          {#each mode.formats as { tick, name, why_not } (tick)}
            {#if formats.includes(tick)}<span class={why_not ? 'soft' : 'ok'}
                >{why_not ? `no ${name}: ${why_not}` : name}</span
              >{/if}
          {/each}
        </span>
      {:else}<span class="soft">waits for the sensor</span>{/if}
      {#each mode.assumed as told (told)}<span class="warn">{told}</span>{/each}
    </li>
  {/each}
</ol>

<style>
  ol {
    display: grid;
    gap: 5px;
    font-size: 14px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.8rem;
    align-items: baseline;
    padding-left: 0.6rem;
    border-left: 2px solid var(--line);
  }
  .formats {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 0.8rem;
  }
</style>
