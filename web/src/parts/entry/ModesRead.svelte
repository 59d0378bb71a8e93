<script lang="ts">
  import type { QuickBody } from '../../lib/types'

  interface Props {
    answer: QuickBody
    /** Recording formats that are ticked. */
    formats: readonly string[]
    /** Single ones that are not wanted all the same: `uhd Full`. */
    without: readonly string[]
    onwithout: (without: string[]) => void
  }
  let { answer, formats, without, onwithout }: Props = $props()
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
            {@const one = `${tick} ${mode.name}`}
            {#if !formats.includes(tick)}{:else if why_not}<span class="soft">no {name}: {why_not}</span
              >{:else}<label class="item"
                ><input
                  type="checkbox"
                  aria-label="{name} in {mode.name}"
                  checked={!without.includes(one)}
                  onchange={(event) =>
                    onwithout(
                      event.currentTarget.checked
                        ? without.filter((other) => other !== one)
                        : [...without, one],
                    )}
                />
                {name}</label
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
