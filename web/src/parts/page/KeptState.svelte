<script lang="ts">
  import type { Faults } from '../../lib/faults'

  interface Props {
    kept: boolean
    faults: Faults
    /** Says a path of the document in words. */
    words: (path: string) => string
  }
  let { kept, faults, words }: Props = $props()
  const all = $derived(Object.entries(faults))
  const first = $derived(all[0])
</script>

<span class="state" role="status">
  {#if first}
    <span class="fault"
      >{all.length === 1 ? 'One figure' : `${all.length} figures`} to correct, not saved until then: {words(
        first[0],
      )}: {first[1]}</span
    >
  {:else if kept}<span class="soft">saved</span>{:else}<span class="soft">saving…</span>{/if}
</span>

<style>
  .state {
    margin-left: auto;
    font-size: 13.5px;
  }
</style>
