<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { figureOptions } from '../../lib/options'
  import Segments from '../controls/Segments.svelte'

  interface Props {
    /** Whether it must be, and else how much it weighs. */
    wish: { must?: boolean; weight?: number }
    onchange: (part: { must?: boolean; weight?: number }) => void
  }
  let { wish, onchange }: Props = $props()
  const KINDS = [
    { value: 'must', label: 'must' },
    { value: 'wish', label: 'wish' },
  ] as const
  const WEIGHTS = [0.5, 1, 2, 3, 5]
  const weight = $derived(wish.weight ?? 1)
</script>

<span class="must">
  <Segments
    label="Must or wish"
    options={KINDS}
    value={wish.must === false ? 'wish' : 'must'}
    onchange={(kind) => onchange({ must: kind === 'must' })}
  />
  {#if wish.must === false}
    <Choice
      label="Weight"
      figure
      options={figureOptions(WEIGHTS, weight, (w) => `×${w}`)}
      value={weight}
      onchange={(chosen) => onchange({ weight: chosen })}
    />
  {/if}
</span>

<style>
  .must {
    display: inline-flex;
    align-items: center;
    gap: 0.3rem;
    margin-left: auto;
  }
</style>
