<script lang="ts">
  import type { Faults } from '../../lib/faults'
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { asOnBench, KitLook } from '../../lib/kit.svelte'
  import type {
    FieldAnswer,
    FieldAsk,
    KitAsk,
    KitMatch,
    MatchAsk,
    SlowAsk,
    SlowMotion,
  } from '../../lib/types'
  import FieldPanel from '../../parts/kit/FieldPanel.svelte'
  import KitSettings from '../../parts/kit/KitSettings.svelte'
  import MatchPanel from '../../parts/kit/MatchPanel.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'
  import SlowMotionPanel from '../../parts/kit/SlowMotionPanel.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId
  const match = new KitLook<MatchAsk, KitMatch>(
    id,
    (bench) => ({
      ...asOnBench(bench),
      planned: true,
      mounted: 'simplest',
      focal_mm: 50,
      on: { name: 'full_frame', own: null, scan_mode_id: null, by: 'width' },
      subject_m: bench.subject_m,
      background_m: 3,
    }),
    (ask, signal) => client.readMatch(id, ask, signal),
  )
  const field = new KitLook<FieldAsk, FieldAnswer>(
    id,
    (bench, equipment) => ({
      ...asOnBench(bench),
      mounted: 'simplest',
      find: 'distance',
      person: { framing: 'chest', height_m: 1.7, headroom: 0.08 },
      distance_m: bench.subject_m,
      lens_id: flat(equipment, bench.lens_id),
      format_id: bench.format_id,
      focal_mm: bench.focal_mm,
      room: { length_m: null, behind_subject_m: 0.5, behind_camera_m: 0.6 },
    }),
    (ask, signal) => client.findField(id, ask, signal),
    false,
  )
  const slow = new KitLook<SlowAsk, SlowMotion>(
    id,
    (bench) => ({ ...asOnBench(bench), mounted: 'simplest', base_format_id: bench.format_id, fps: 100 }),
    (ask, signal) => client.readSlowMotion(id, ask, signal),
    false,
  )
  // The package's wanted rate, once it is known.
  void client.readSettings(id).then(({ data }) => {
    const [over = 100, under = 1] = (data?.settings.wanted_fps ?? '100').split('/').map(Number)
    slow.change({ fps: over / under })
  })

  /** A fisheye has no flat field: then the first lens that has one. */
  function flat(equipment: NonNullable<typeof match.equipment>, lensId: number) {
    const lenses = equipment.lens_sets.flatMap((set) => set.lenses)
    const ok = lenses.filter((lens) => lens.projection === 'rectilinear')
    return (ok.find((lens) => lens.id === lensId) ?? ok[0])?.id ?? lensId
  }
  /** What all three share. */
  function change(part: Partial<KitAsk>) {
    match.change(part)
    field.change(part)
    slow.change(part)
  }
  const loose = $derived(
    [match, field, slow].flatMap((look) =>
      look.problem && Object.keys(look.faults).length === 0 ? [look.problem] : [],
    )[0] ?? null,
  )
  /** What the panels have in common: the faults of what they ask, and how a distance is read. */
  const given = (asked: { faults: Faults }) => ({
    fault: (path: string) => asked.faults[path],
    read: client.readDistance,
  })
</script>

<NoticeBar what="package" problem={loose} onresolve={() => {}} onundo={null} />
{#if match.ask && match.equipment && match.bench}
  <KitSettings
    ask={match.ask}
    package={match.equipment}
    planned={match.ask.planned ?? false}
    onchange={({ planned, ...part }) => {
      if (planned !== undefined) match.change({ planned })
      else change(part)
    }}
  />
  <MatchPanel
    {...given(match)}
    ask={match.ask}
    answer={match.answer}
    package={match.equipment}
    unit={match.bench.unit}
    onchange={(part) => match.change(part)}
  />
{/if}
{#if field.ask && field.equipment && field.bench}
  <FieldPanel
    {...given(field)}
    ask={field.ask}
    answer={field.answer}
    package={field.equipment}
    unit={field.bench.unit}
    onchange={(part) => field.change(part)}
  />
{/if}
{#if slow.ask && slow.equipment}
  <SlowMotionPanel
    ask={slow.ask}
    answer={slow.answer}
    package={slow.equipment}
    fault={(path) => slow.faults[path]}
    onchange={(part) => slow.change(part)}
  />
{/if}
