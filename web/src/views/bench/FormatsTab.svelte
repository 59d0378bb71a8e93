<script lang="ts">
  import type { BenchTabProps } from '../../lib/benchTabs'
  import FormatLadder from '../../parts/bench/FormatLadder.svelte'
  import LadderFilters from '../../parts/bench/LadderFilters.svelte'

  let { state, view, places, bodyName, open, dragging, onsight, onchange, ontoggleopen }: BenchTabProps =
    $props()
</script>

<LadderFilters {state} {view} {bodyName} {onchange} />
<FormatLadder {state} {view} {places} {open} {dragging} {onsight} {onchange} {ontoggleopen} />
