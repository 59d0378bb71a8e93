<script lang="ts">
  import { pathTo } from '../../lib/router.svelte'

  interface Props {
    productionId: number
    /** What cannot be shown yet. */
    what: string
  }
  let { productionId, what }: Props = $props()
</script>

<div class="begin">
  <p>{what} needs a camera with a recording format, and a lens. This production has not both yet.</p>
  <p class="acts">
    <a class="knob" href={pathTo(productionId, 'package', 'bodies', 'new')}>Enter a camera from few facts</a>
    <a class="knob" href={pathTo(productionId, 'package', 'lenses', 'new')}>Enter lenses in one line</a>
    <a class="knob" href={pathTo(productionId, 'package', 'bodies')}>Take them from the catalogue or a file</a
    >
  </p>
</div>

<style>
  .begin {
    display: grid;
    gap: 0.6rem;
    padding: 1.5rem 0;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
</style>
