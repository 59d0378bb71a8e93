<script lang="ts">
  import type { BenchTabProps } from '../../lib/benchTabs'
  import { readDistance } from '../../lib/client'
  import ScenePanel from '../../parts/bench/ScenePanel.svelte'

  let { state, view, onchange }: Pick<BenchTabProps, 'state' | 'view' | 'onchange'> = $props()
</script>

<ScenePanel {state} view={view.viewfinder} read={readDistance} {onchange} />
