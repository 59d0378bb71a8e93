<script lang="ts">
  import type { QuickBody } from '../../lib/types'

  interface Props {
    answer: QuickBody
    /** Recording formats that are ticked. */
    formats: readonly string[]
    /** Single ones that are not wanted all the same: `uhd Full`. */
    without: readonly string[]
    /** Those that cut the sides of a window and are wanted. */
    also: readonly string[]
    onwithout: (without: string[]) => void
    onalso: (also: string[]) => void
  }
  let { answer, formats, without, also, onwithout, onalso }: Props = $props()
  const leftOut = $derived(answer.columns.filter((column) => column.taken_for === null))
  /** A format is wanted as it is ticked above; one that cuts the window only where it is asked for. */
  function choose(one: string, wanted: boolean, cuts: boolean) {
    const list = cuts ? also : without
    const now = list.filter((other) => other !== one)
    if (wanted === cuts) now.push(one)
    if (cuts) onalso(now)
    else onwithout(now)
  }
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
          {#each mode.recorded as told, n (n)}<span>{told}</span>{/each}
          {#each mode.formats as { tick, name, why_not, cuts } (tick)}
            {@const one = `${tick} ${mode.name}`}
            {#if !formats.includes(tick)}{:else if why_not}<span class="soft">no {name}: {why_not}</span
              >{:else}<label class="item"
                ><input
                  type="checkbox"
                  aria-label="{name} in {mode.name}"
                  checked={cuts ? also.includes(one) : !without.includes(one)}
                  onchange={(event) => choose(one, event.currentTarget.checked, cuts !== '')}
                />
                {name}{#if cuts}<span class="soft">{cuts}</span>{/if}</label
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
