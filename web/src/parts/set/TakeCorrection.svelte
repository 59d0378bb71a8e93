<script lang="ts">
  import type { SetPage } from '../../lib/set.svelte'
  import type { ListedTake } from '../../lib/logEntries'
  import type { OnCamera, Problem, Unit } from '../../lib/types'
  import DistanceField from '../fields/DistanceField.svelte'
  import OnCells from './OnCells.svelte'

  interface Props {
    page: SetPage
    take: ListedTake
    unit: Unit
    /** Reads a distance as it is written. */
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
  }
  let { page, take, unit, read }: Props = $props()

  /** What is said anew, until it is logged in one version. */
  let draft = $state.raw<Partial<OnCamera>>({})
  let open = $state(false)
  const on = $derived({ ...take.entry.on, ...draft })
  const changed = $derived(Object.keys(draft).length > 0)
  const put = (part: Partial<OnCamera>) => (draft = { ...draft, ...part })
  function log() {
    page.correct(take, { on })
    draft = {}
    open = false
  }
</script>

{#if open}
  <OnCells
    {on}
    planned={page.planOf(take.entry)}
    body={page.bodyOf(on)}
    bodies={page.seen?.day.bodies ?? []}
    lens={page.lensOf(on)}
    held={null}
    onset={put}
  />
  <p class="ways">
    <DistanceField
      label="Focus of the take"
      metres={on.focus_m ?? 0}
      {unit}
      {read}
      onchange={(focus_m) => put({ focus_m })}
    />
    <button class="knob" disabled={!changed} onclick={log}>Log the correction</button>
    <button
      class="knob"
      onclick={() => {
        draft = {}
        open = false
      }}>Leave it as it was</button
    >
  </p>
{:else}
  <p><button class="knob" onclick={() => (open = true)}>Correct what was on</button></p>
{/if}

<style>
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
</style>
