<script lang="ts">
  import type { Bench } from '../../lib/bench.svelte'
  import { narrow } from '../../lib/narrow.svelte'
  import type { BenchView, FormatPlace } from '../../lib/types'
  import Segments from '../../parts/controls/Segments.svelte'
  import PlanDrawing from '../../parts/bench/PlanDrawing.svelte'
  import FinderDrawing from '../../parts/drawings/FinderDrawing.svelte'
  import WindowMapDrawing from '../../parts/drawings/WindowMapDrawing.svelte'

  interface Props {
    bench: Bench
    view: BenchView
    place: FormatPlace
    names: Map<number, string>
  }
  let { bench, view, place, names }: Props = $props()
  let squeezed = $state(false)
  const DRAWINGS = [
    { value: 'plan', label: 'Plan' },
    { value: 'finder', label: 'Finder' },
    { value: 'map', label: 'Window map' },
    { value: 'none', label: 'None' },
  ] as const
  type Drawing = (typeof DRAWINGS)[number]['value']
  /** On a telephone one at a time. */
  let one = $state<Drawing>('plan')
  const shown = (drawing: Drawing) => !narrow.current || one === drawing

  /** Things where the hand has put them, before any answer; what is said of them is the last answer's. */
  const placed = $derived.by(() => {
    const at = new Map(bench.state.scene.objects.map((o) => [o.key, o]))
    return view.viewfinder.objects.map((o) => {
      const { distance_m, aside_m } = at.get(o.key) ?? o
      return { ...o, distance_m, aside_m }
    })
  })

  function placeObject(key: string, distance_m: number, aside_m: number, kind: string) {
    const { scene } = bench.state
    const objects = scene.objects.map((o) => (o.key === key ? { ...o, distance_m, aside_m } : o))
    bench.change({ scene: { ...scene, objects } }, kind)
  }
</script>

{#if narrow.current}
  <Segments label="Drawing" options={DRAWINGS} value={one} onchange={(drawing) => (one = drawing)} />
{/if}
<div class="drawings">
  {#if shown('plan')}
    <section class="plan" aria-label="Plan view">
      <PlanDrawing
        plan={view.plan}
        subject_m={bench.state.subject_m}
        focus_m={bench.state.focus_m ?? bench.state.subject_m}
        unit={bench.state.unit}
        {names}
        objects={placed}
        reach={bench.reach}
        onreach={(metres) => bench.setReach(metres)}
        onplace={placeObject}
        onmove={(handle, metres, kind) =>
          bench.change(handle === 'subject' ? { subject_m: metres } : { focus_m: metres }, kind)}
        ondrag={(on) => bench.drag(on)}
      />
    </section>
  {/if}
  {#if shown('finder')}
    <section class="finder" aria-label="Finder">
      <FinderDrawing
        view={view.viewfinder}
        name="{place.format.name}, {place.body.name}"
        {squeezed}
        onsqueezed={(on) => (squeezed = on)}
      />
    </section>
  {/if}
  {#if shown('map')}
    <section class="map" aria-label="Window map">
      <WindowMapDrawing
        map={view.window_map}
        bodyName={place.body.name}
        onchoose={(modeId) => {
          const first = place.body.modes.find((mode) => mode.id === modeId)?.formats[0]
          if (first) bench.change({ format_id: first.id })
        }}
      />
    </section>
  {/if}
</div>

<style>
  .drawings {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1.05fr) minmax(0, 0.62fr);
    grid-template-rows: 300px;
    gap: 10px;
  }
  .plan,
  .finder,
  .map {
    min-width: 0;
    min-height: 0;
    /* A layer each: dragging in one drawing paints neither the other nor the page. */
    contain: layout paint;
    will-change: transform;
    border: 1px solid var(--line);
    background: var(--panel);
  }
  @media (max-width: 1000px) {
    .drawings {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: 290px minmax(260px, 52vw) 330px;
    }
  }
  @media (max-width: 560px) {
    .drawings {
      grid-template-rows: auto;
    }
    .plan {
      height: 220px;
    }
    .finder {
      height: 62vw;
    }
    .map {
      height: 330px;
    }
  }
  /* Drawings keep the width at which they were drawn: on paper they stand below one another. */
  @media print {
    .drawings {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: 290px 420px 330px;
    }
    .plan,
    .finder,
    .map {
      break-inside: avoid;
    }
  }
</style>
