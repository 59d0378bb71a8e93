<script lang="ts">
  import { onMount, untrack } from 'svelte'
  import * as client from '../lib/client'
  import { ClipReader } from '../lib/clips.svelte'
  import type { ListedTake } from '../lib/logEntries'
  import { pathTo } from '../lib/router.svelte'
  import { SetPage } from '../lib/set.svelte'
  import { signal } from '../lib/signal.svelte'
  import type { CheckItem, DayReport, Problem, Unit } from '../lib/types'
  import type { ViewProps } from '../lib/views'
  import Choice from '../parts/controls/Choice.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import ClipsPanel from '../parts/set/ClipsPanel.svelte'
  import ChecksPanel from '../parts/set/ChecksPanel.svelte'
  import NowPanel from '../parts/set/NowPanel.svelte'
  import ReportPanel from '../parts/set/ReportPanel.svelte'
  import SourcesPanel from '../parts/set/SourcesPanel.svelte'
  import TakeCorrection from '../parts/set/TakeCorrection.svelte'
  import TakeList from '../parts/set/TakeList.svelte'
  import WaitingList from '../parts/set/WaitingList.svelte'

  let { productionId, rest }: ViewProps = $props()
  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId

  const PAGES = [
    { name: 'now', title: 'Now' },
    { name: 'takes', title: 'Takes' },
    { name: 'checks', title: 'Checklist' },
    { name: 'clips', title: 'Clips' },
    { name: 'report', title: 'Report' },
    { name: 'cameras', title: 'Cameras' },
  ] as const
  const shown = $derived(PAGES.find((row) => row.name === rest[0])?.name ?? 'now')

  const page = new SetPage(id)
  let productionName = $state('')
  let unit = $state<Unit>('m')
  let report = $state.raw<DayReport | null>(null)
  let unread = $state.raw<Problem | null>(null)

  async function open() {
    const asked = new URLSearchParams(location.search)
    const [settings, production] = await Promise.all([
      client.readSettings(id),
      client.readProduction(id),
      page.open({
        day: asked.get('day') ?? undefined,
        unit: asked.get('unit') ?? undefined,
        shot: asked.get('shot') ?? undefined,
      }),
    ])
    unit = settings.data?.settings.unit ?? 'm'
    productionName = production.data?.facts.name ?? ''
    unread = settings.problem ?? null
    void page.fetchAll()
  }
  onMount(() => {
    void open()
    return () => page.close()
  })

  const reader = new ClipReader(id)
  let readings = $state(0)
  async function readClips(files: File[]) {
    const to = { unit: page.unit, day: page.seen?.day.day ?? '', by: page.by }
    if (await reader.read(files, to)) readings += 1
  }

  // The report is read when it is looked at, and whenever something was logged.
  $effect(() => {
    void readings
    if ((shown !== 'report' && shown !== 'clips') || !page.seen) return undefined
    let newest = true
    void client.readDayReport(id, page.seen.day.day).then(({ data, problem }) => {
      if (!newest) return
      report = data ?? null
      unread = problem ?? null
    })
    return () => {
      newest = false
    }
  })

  const days = $derived(
    (page.seen?.day.days ?? []).map((d) => ({ value: d.day, label: d.day ? `Day ${d.day}` : 'No day' })),
  )
  const units = $derived([...new Set([...page.units, page.unit, 'A', 'B'])].filter(Boolean).sort())
  // A lens that the camera names, or another format, has another depth.
  $effect(() => {
    void [page.said?.lens, page.said?.format, page.said?.crops]
    page.follows()
  })
  // What begins to differ is heard, where that was asked for.
  const loud = $derived(page.live.seen?.held?.differences.map((d) => d.headline).join() ?? '')
  // The checklist hears the camera as well.
  let heard = ''
  $effect(() => {
    const speaks = loud
    if (shown !== 'checks') return
    // What is read meanwhile is no reason to read it again.
    untrack(() => {
      if (page.seen && speaks !== heard) void page.load()
      heard = speaks
    })
  })
  let before = ''
  $effect(() => {
    if (loud && loud !== before) signal.give()
    before = loud
  })
  const ticks = $derived(
    new Map(
      page.written.flatMap((entry) =>
        entry.kind === 'tick' ? [[`${entry.body} ${entry.item}`, entry.ticked] as const] : [],
      ),
    ),
  )
  function query() {
    const shot: Record<string, string> = page.shot ? { shot: page.shot.shot } : {}
    return `?${new URLSearchParams({ day: page.seen?.day.day ?? '', unit: page.unit, ...shot })}`
  }
  function pickShot(key: string) {
    page.choose(key)
    history.replaceState(null, '', `${location.pathname}${query()}`)
  }
  function pickUnit(letter: string) {
    page.pickUnit(letter)
    history.replaceState(null, '', `${location.pathname}${query()}`)
  }
  async function pickDay(day: string) {
    await page.load(day)
    page.choose(null)
    history.replaceState(null, '', `${location.pathname}${query()}`)
    void page.fetchAll()
  }
  function step(by: number) {
    const at = page.shots.findIndex((shot) => shot.shot === page.shot?.shot)
    const next = page.shots[Math.max(0, Math.min(page.shots.length - 1, at + by))]
    if (next) pickShot(next.shot)
  }
  const keys = [
    { keys: '.', on: ['.'], does: 'Next shot', run: () => step(1) },
    { keys: ',', on: [','], does: 'Previous shot', run: () => step(-1) },
    { keys: 'l', on: ['l'], does: 'Log the take', run: () => page.logTake() },
    { keys: 'o', on: ['o'], does: 'Circle the last take, or not', run: () => page.circle() },
  ]
  const tick = (body: string, item: CheckItem, part: { ticked?: boolean; note?: string }) =>
    page.tick(body, item, part)
</script>

{#snippet correction(take: ListedTake)}
  <TakeCorrection {page} {take} {unit} read={client.readDistance} />
{/snippet}

{#snippet takes()}
  <TakeList
    takes={page.takes}
    {unit}
    marks={(on) => page.marks(on)}
    {correction}
    onchange={(take, part) => page.correct(take, part)}
  />
{/snippet}

<ViewFrame
  productionId={id}
  {productionName}
  current="set"
  heading="Set"
  {keys}
  undo={{ steps: { back: page.logged ? 1 : 0, forth: 0 }, undo: () => page.undo(), redo: () => {} }}
  sheet={shown === 'report' ? { kind: 'day' } : shown === 'checks' ? { kind: 'checks' } : null}
  problem={page.problem?.code === 'no_answer' && page.seen ? null : (page.problem ?? unread)}
  onretry={() => void page.load()}
  waiting={page.seen === null}
>
  {#if page.seen}
    <div class="set-page">
      <div class="bar">
        {#if days.length > 1}<Choice
            label="Day"
            options={days}
            value={page.seen.day.day}
            onchange={(day) => void pickDay(day)}
          />{/if}
        <span class="letters" role="group" aria-label="Camera">
          {#each units as letter (letter)}
            <button
              class="knob letter"
              aria-pressed={letter === page.unit}
              aria-label="Camera {letter}"
              onclick={() => pickUnit(letter)}>{letter}</button
            >
          {/each}
        </span>
        <nav aria-label="Of the set">
          {#each PAGES as each (each.name)}
            <a
              href="{pathTo(id, 'set')}/{each.name}{query()}"
              aria-current={each.name === shown ? 'page' : undefined}>{each.title}</a
            >
          {/each}
        </nav>
      </div>
      <WaitingList
        items={page.outbox.items}
        away={page.away}
        unkept={page.outbox.unkept}
        onsettle={(item, stands) => void page.outbox.settle(item, stands)}
        ondrop={(item) => void page.outbox.drop(item)}
        onsend={() => void page.outbox.flush()}
      />

      {#if page.missing !== null}<p class="warn" role="status">
          {page.missing ? `Day ${page.missing}` : 'What has no day'} was not read while there was a line: this browser
          does not have it.
        </p>{/if}
      {#if page.complete}<p class="soft complete">
          This day can be worked without a line: all of it is in this browser.
        </p>{/if}

      {#if shown === 'now'}
        {#if page.shot}
          <NowPanel {page} {unit} read={client.readDistance} onstep={step} />
        {:else}
          <p>
            There is no shot on this day for this camera. <a class="link" href={pathTo(id, 'shots')}
              >To the list of shots</a
            >
          </p>
        {/if}
      {:else if shown === 'takes'}
        {@render takes()}
      {:else if shown === 'checks'}
        <ChecksPanel checks={page.seen.checks} waiting={ticks} ontick={tick} />
      {:else if shown === 'cameras'}
        <SourcesPanel
          sources={page.sources?.document.sources ?? []}
          bodies={page.seen.day.bodies.map((b) => b.name)}
          faults={page.sourceFaults}
          saved={page.sourcesSaved}
          signal={signal.on}
          onchange={(sources) => void page.setSources(sources)}
          onsignal={(on) => signal.set(on)}
        />
      {:else if shown === 'clips' && report}
        <ClipsPanel
          {report}
          reading={reader}
          unit={page.unit}
          onfiles={(files) => void readClips(files)}
          onstop={() => reader.stop()}
        />
      {:else if report}
        <ReportPanel {report} />
        <section aria-label="What was shot">
          <h2>What was shot</h2>
          {@render takes()}
        </section>
      {/if}
    </div>
  {/if}
</ViewFrame>

<style>
  .set-page {
    display: grid;
    gap: 10px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .complete {
    order: 1;
    font-size: 13px;
  }
  .letters {
    display: inline-flex;
    gap: 4px;
  }
  .letter {
    min-width: 44px;
    font-size: 17px;
  }
  nav {
    display: inline-flex;
    gap: 1rem;
    font-size: 15px;
  }
  nav a {
    border-bottom: 2px solid transparent;
  }
  nav a[aria-current] {
    border-bottom-color: var(--accent);
  }
  h2 {
    font-size: 16px;
  }
</style>
