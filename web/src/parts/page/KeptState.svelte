<script lang="ts">
  import type { Faults } from '../../lib/faults'

  interface Props {
    faults: Faults
    /** Says a path of the document in words. */
    words: (path: string) => string
  }
  let { faults, words }: Props = $props()
  const all = $derived(Object.entries(faults))
  const first = $derived(all[0])
</script>

{#if first}<span class="state" role="status"
    ><span class="fault"
      >{all.length === 1 ? 'One figure' : `${all.length} figures`} to correct, not saved until then: {words(
        first[0],
      )}: {first[1]}</span
    ></span
  >{/if}

<style>
  .state {
    margin-left: auto;
    font-size: 13.5px;
  }
</style>
