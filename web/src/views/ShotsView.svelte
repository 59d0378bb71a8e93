<script lang="ts">
  import { onMount } from 'svelte'
  import { toQuery } from '../lib/address'
  import * as client from '../lib/client'
  import { columnOfBench, comparisonOf } from '../lib/compare.svelte'
  import { whenWords } from '../lib/format'
  import { pathTo, router } from '../lib/router.svelte'
  import { chosenOf, freeName } from '../lib/rows'
  import { byKey, newShot, NO_FILTER, withPictures, type ShotFilter } from '../lib/shotList'
  import { ShotsEditor, ShownShots } from '../lib/shots.svelte'
  import { noteShot } from '../lib/shotOnBench'
  import type {
    BenchState,
    ListedAnswer,
    PackageSettings,
    Problem,
    Shot,
    ShotAnswer,
    ShotChange,
    ShotChoice,
  } from '../lib/types'
  import type { ViewProps } from '../lib/views'
  import Segments from '../parts/controls/Segments.svelte'
  import RowSection from '../parts/grid/RowSection.svelte'
  import KeptState from '../parts/page/KeptState.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'
  import DayRuns from '../parts/shots/DayRuns.svelte'
  import ListUses from '../parts/shots/ListUses.svelte'
  import ShotDetail from '../parts/shots/ShotDetail.svelte'
  import { shotColumns, type Need } from '../parts/shots/shotColumns'
  import ShotFiles from '../parts/shots/ShotFiles.svelte'
  import ShotFilters from '../parts/shots/ShotFilters.svelte'
  import ShotStrip from '../parts/shots/ShotStrip.svelte'

  let { productionId }: ViewProps = $props()
  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId

  let editor = $state.raw<ShotsEditor | null>(null)
  let settings = $state.raw<PackageSettings | null>(null)
  let bench = $state.raw<BenchState | null>(null)
  let productionName = $state('')
  let unread = $state.raw<Problem | null>(null)
  let filter = $state.raw<ShotFilter>(NO_FILTER)
  let chosenKey = $state<string | undefined>(new URLSearchParams(location.search).get('shot') ?? undefined)
  let columns = $state<'answers' | 'needs'>('answers')
  let pictures = $state.raw(withPictures(byKey([]), []))
  let rented = $state.raw<ShotAnswer | null>(null)
  /** The answer of the shot in hand with all reasons. */
  let whole = $state.raw<ShotAnswer | null>(null)
  /** With what the shot in hand could be made, and of which shot as it stood that is. */
  let changes = $state.raw<{ of: string; list: ShotChange[] } | null>(null)

  async function open() {
    const asked = [
      client.readShots(id),
      client.readSettings(id),
      client.readBench(id),
      client.readProduction(id),
    ] as const
    const [shots, kept, onBench, production] = await Promise.all(asked)
    unread = shots.problem ?? kept.problem ?? production.problem ?? null
    settings = kept.data?.settings ?? null
    bench = onBench.data?.state ?? null
    productionName = production.data?.facts.name ?? ''
    if (shots.data) editor = new ShotsEditor(id, shots.data)
  }
  onMount(() => {
    void open()
    return () => editor?.close()
  })

  const shown = $derived(editor && new ShownShots(editor, () => filter))
  const rows = $derived(shown?.rows ?? [])
  const answers = $derived(editor?.answers ?? byKey<ListedAnswer>([]))
  const shot = $derived(chosenOf(rows, chosenKey))
  const sheet = $derived(editor?.sheet ?? null)
  const unit = $derived(settings?.unit ?? 'm')
  const offMain = $derived([...answers.values()].some((each) => each.off_main !== ''))
  const against = $derived(sheet?.against ?? '')
  const told = $derived(shotColumns(() => answers, offMain, unit, against, columns === 'needs'))

  /** The shots whose pictures are in sight, or nearly. */
  let inStrip = $state.raw<readonly Shot[]>([])
  // The pictures of what is in sight, asked for again where an answer is another.
  /** Of which answer each picture is, by the key of its shot. */
  const drawnFor: Record<string, string> = {}
  $effect(() => {
    const wanted = (shot && !inStrip.includes(shot) ? [...inStrip, shot] : inStrip).filter((row) => {
      const answer = answers.get(row.key)
      return answer && drawnFor[row.key] !== pictureOf(answer)
    })
    if (!wanted.length) return
    const timer = setTimeout(() => void draw(wanted), 150)
    return () => clearTimeout(timer)
  })
  const pictureOf = (answer: ListedAnswer) => `${answer.noted.asked} ${answer.noted.told}`
  async function draw(wanted: Shot[]) {
    for (const row of wanted) {
      const answer = answers.get(row.key)
      if (answer) drawnFor[row.key] = pictureOf(answer)
    }
    const { data } = await client.shotPictures(id, wanted, bench?.scene)
    if (!data) return
    pictures = withPictures(pictures, data)
  }

  // All reasons of the shot that is looked at alone, and, when the hand rests, with what it could be made.
  const shotAsTold = $derived(shot ? JSON.stringify(shot) : '')
  const answer = $derived(shot && answers.get(shot.key))
  $effect(() => {
    if (!shot || !answer) return
    const [of, asked, open] = [shotAsTold, shot, ['depends', 'nearly', 'cannot'].includes(answer.verdict)]
    const abort = new AbortController()
    const timer = setTimeout(() => void readWhole(of, asked, open, abort.signal), 40)
    return () => {
      clearTimeout(timer)
      abort.abort()
    }
  })
  async function readWhole(of: string, asked: Shot, open: boolean, signal: AbortSignal) {
    // Given up where another shot, or another cell, is looked at meanwhile.
    const ask = (changes: boolean) => client.answerShot(id, asked, changes, signal).catch(() => null)
    const found = await ask(false)
    if (found?.data && !signal.aborted) whole = found.data
    if (!open || !found?.data || signal.aborted) return
    const more = await ask(true)
    if (more?.data && !signal.aborted) changes = { of, list: more.data.changes }
  }

  const changed = $derived(sheet?.changed ?? [])
  const noted = $derived(Object.keys(editor?.document.noted ?? {}).length > 0)
  const numberOf = (key: string) => editor?.document.shots.find((row) => row.key === key)?.name ?? ''

  function choose(key: string | undefined) {
    if (key !== chosenKey) rented = null
    chosenKey = key
  }
  function setShot(part: Partial<Shot>) {
    const shots = editor?.document.shots ?? []
    const index = shots.findIndex((row) => row.key === shot?.key)
    if (editor && shot && index >= 0) editor.set(`shots[${index}]`, { ...shot, ...part })
  }
  function wish(need: Need, weight: number | null) {
    if (!shot) return
    const others = Object.entries(shot.wishes).filter(([name]) => name !== need)
    setShot({ wishes: Object.fromEntries(weight === null ? others : [...others, [need, weight]]) })
  }
  const pin = (choice: ShotChoice | null) =>
    setShot({
      pin: choice && {
        body: choice.body,
        mode: choice.mode,
        format: choice.format,
        lens: choice.lens,
        lens_set: choice.lens_set,
        focal_mm: choice.is_zoom ? choice.focal_mm : null,
        adapters: choice.adapters,
      },
    })
  async function rent() {
    if (!shot) return
    const { data, problem } = await client.rentedShot(id, shot)
    rented = data ?? null
    unread = problem ?? null
  }
  async function onBench(): Promise<BenchState | null> {
    if (!shot || !editor) return null
    await editor.settle()
    const { data, problem } = await client.shotBench(id, shot)
    unread = problem ?? null
    return data?.state ?? null
  }
  async function toBench() {
    const state = await onBench()
    if (!state || !shot) return
    noteShot(id, { key: shot.key, name: shot.name })
    router.go(`${pathTo(id, 'bench')}?${toQuery(state)}`)
  }
  /** The shot's choice beside its runner-up, as a comparison that is kept. */
  async function compare() {
    const state = await onBench()
    if (!state || !shot) return
    const second = (await client.answerShot(id, shot, false)).data?.runner_up
    const other = second
      ? {
          ...state,
          format_id: second.format_id,
          lens_id: second.lens_id,
          adapter_id: second.adapter_ids[0] ?? null,
          second_adapter_id: second.adapter_ids[1] ?? null,
          focal_mm: second.is_zoom ? second.focal_mm : null,
          stop: second.stop,
          subject_m: second.distance_m ?? state.subject_m,
        }
      : state
    const columns = [columnOfBench(state), columnOfBench(other)]
    const { data, problem } = await client.addComparison(
      id,
      comparisonOf(state, columns, `Shot ${shot.name}`),
    )
    unread = problem ?? null
    if (data) router.go(pathTo(id, 'compare', data.id))
  }
  function note() {
    if (!editor || !sheet) return
    const told = Object.fromEntries(sheet.answers.filter((a) => a.noted.asked).map((a) => [a.key, a.noted]))
    editor.change({ ...editor.document, noted: told })
  }
  function step(by: number) {
    const at = rows.findIndex((row) => row.key === shot?.key)
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))]
    if (next) choose(next.key)
  }
  const keys = [
    { keys: '.', on: ['.'], does: 'Next shot', run: () => step(1) },
    { keys: ',', on: [','], does: 'Previous shot', run: () => step(-1) },
    { keys: 'o', on: ['o'], does: 'Open the shot on the Bench', run: () => void toBench() },
    { keys: 'k', on: ['k'], does: 'Keep the choice of the shot, or let it go', run: () => pin(shot?.pin ? null : ((shot && answers.get(shot.key)?.best) ?? null)) },
    { keys: 'l', on: ['l'], does: 'Answers or all needs', run: () => (columns = columns === 'needs' ? 'answers' : 'needs') },
  ] // prettier-ignore
  const words = (path: string) => {
    const [, at, rest] = /^shots\[(\d+)\]\.?(.*)$/.exec(path) ?? []
    return at === undefined ? path : `${rows[Number(at)]?.name ?? ''} ${rest}`.replaceAll('_', ' ')
  }
</script>

<ViewFrame
  productionId={id}
  {productionName}
  current="shots"
  heading="Shots"
  sheet={{ kind: 'shots' }}
  undo={editor && { steps: editor.steps, undo: () => editor?.undo(), redo: () => editor?.redo() }}
  {keys}
  more={[
    { keys: 'F2 Enter', does: 'In the list: write in the cell' },
    {
      keys: 'Shift ↑ ↓ ← →',
      does: 'In the list: choose a block, to copy, paste, empty (Del) or fill down (Ctrl D)',
    },
    { keys: 'Alt ↑ ↓', does: 'In the list: move the shot' },
  ]}
  what="list of shots"
  problem={editor?.problem ?? unread}
  differences={editor?.differences ?? null}
  onresolve={(take) => editor?.resolve(take)}
  onundo={editor?.steps.back ? () => editor?.undo() : null}
  onretry={() => (editor ? editor.retry() : void open())}
  waiting={editor === null}
>
  {#if editor && shown}
    <div class="content">
      <div class="bar">
        <ShotFilters shots={editor.document.shots} {sheet} {filter} onchange={(next) => (filter = next)} />
        <KeptState faults={editor.faults} {words} />
      </div>
      {#if rows.length}
        <ShotStrip
          shots={rows}
          {answers}
          {pictures}
          chosen={shot?.key}
          onchoose={choose}
          onsight={(seen) => (inStrip = seen)}
        />
      {/if}
      {#if sheet?.in_plan}<p class="soft">
          <a class="link" href={`${pathTo(id, 'kit')}/${sheet.in_plan.kit_key}`}>The plan</a>:
          {sheet.in_plan.kit}, made {whenWords(sheet.in_plan.made_at)};
          <span class={sheet.in_plan.as_planned < sheet.in_plan.of ? 'warn' : ''}
            >{sheet.in_plan.as_planned} of {sheet.in_plan.of} shots are made as it has them</span
          >.
        </p>{/if}
      {#if changed.length}
        <div class="warn" role="status">
          <p>
            {changed.length} changed {changed.length === 1 ? 'its answer' : 'their answers'} since they were noted:
          </p>
          <ul>
            {#each changed.slice(0, 12) as each (each.key)}
              <li class={each.lost ? 'bad' : ''}>
                <button class="link" onclick={() => choose(each.key)}>{numberOf(each.key)}</button>
                {each.before || 'nothing'} → {each.after || 'nothing'}
              </li>
            {/each}
          </ul>
        </div>
      {/if}
      <div class="below">
        <div class="list">
          <RowSection
            heading="Shots"
            what="shot"
            {rows}
            columns={told}
            path="shots"
            editor={shown}
            bind:chosen={() => shot?.key, choose}
            make={newShot}
            copy={(row, all) => ({
              ...newShot(all, row),
              ...row,
              key: newShot(all, row).key,
              name: freeName(row.name, all),
            })}
          >
            {#snippet beside()}
              <Segments
                label="Columns"
                options={[
                  { value: 'answers', label: 'Answers' },
                  { value: 'needs', label: 'All needs' },
                ]}
                value={columns}
                onchange={(value) => (columns = value)}
              />
              {#if sheet?.answers.length}<button class="knob" onclick={note}
                  >{noted ? 'Note these answers anew' : 'Note these answers'}</button
                >{/if}
            {/snippet}
          </RowSection>
          {#if !editor.document.shots.length}
            <p class="soft">
              A shot is a row: its framing, how far away, how fast. Add one here, or keep what is on the
              <a class="link" href={pathTo(id, 'bench')}>Bench</a> as a shot with the key k.
            </p>
          {/if}
          <ShotFiles
            addressOf={(kind) => client.shotsFileAddress(id, kind)}
            read={async (kind, file, remove, columns) => {
              await editor?.settle()
              return client.readShotsFile(id, kind, file, remove, columns)
            }}
            ontake={(table) => editor?.change(table.document)}
          />
          {#if sheet}<DayRuns
              days={sheet.days.filter(
                (day) =>
                  (!filter.day || day.day === filter.day) && (!filter.unit || day.unit === filter.unit),
              )}
            />{/if}
          {#if sheet && rows.length}<ListUses {sheet} />{/if}
        </div>
        {#if shot}
          {#key shot.key}
            <ShotDetail
              {shot}
              {answer}
              whole={whole?.key === shot.key ? whole : null}
              view={pictures.get(shot.key)}
              {unit}
              {against}
              {rented}
              changes={changes?.of === shotAsTold ? changes.list : null}
              onapply={(part) => setShot(part)}
              onwish={wish}
              onpin={pin}
              onrent={() => void rent()}
            >
              {#snippet ways()}
                <button class="knob" onclick={() => void toBench()}>Open on the Bench</button>
                <button class="knob" onclick={() => void compare()}>Compare with the runner-up</button>
              {/snippet}
            </ShotDetail>
          {/key}
        {/if}
      </div>
    </div>
  {/if}
</ViewFrame>

<style>
  .content {
    display: grid;
    gap: 8px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .below {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 390px;
    gap: 12px;
    align-items: start;
  }
  .list {
    display: grid;
    gap: 8px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  /* The shot that is chosen stays in sight while the list goes by. */
  .below > :global(section) {
    position: sticky;
    top: 8px;
    max-height: calc(100vh - 16px);
    overflow: auto;
  }
  @media print {
    .below > :global(section) {
      position: static;
      max-height: none;
    }
  }
  @media (max-width: 1100px) {
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
    /* What was chosen in the strip stands below it, before the list. */
    .below > :global(section) {
      order: -1;
      position: static;
      max-height: none;
    }
  }
</style>
