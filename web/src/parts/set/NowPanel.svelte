<script lang="ts">
  import type { ListedTake } from '../../lib/logEntries'
  import type { SetPage } from '../../lib/set.svelte'
  import { aperture } from '../../lib/format'
  import type { OnCamera, Problem, Unit } from '../../lib/types'
  import FocusWheel from './FocusWheel.svelte'
  import LiveStatus from './LiveStatus.svelte'
  import OnCells from './OnCells.svelte'
  import PlanCard from './PlanCard.svelte'
  import TakeCorrection from './TakeCorrection.svelte'
  import TakeList from './TakeList.svelte'
  import Warnings from './Warnings.svelte'

  interface Props {
    page: SetPage
    unit: Unit
    /** Reads a distance as it is written. */
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onstep: (by: number) => void
  }
  let { page, unit, read, onstep }: Props = $props()

  let noting = $state(false)
  const shot = $derived(page.shot)
  const last = $derived(page.last)
  const hourOf = (at: string) => new Date(at).toTimeString().slice(0, 5)
  const light = $derived(
    page.agrees?.brighter_stops != null && page.agrees.differences.length > 1
      ? page.agrees.told.replace(/^.*All in all /, 'All in all ')
      : '',
  )
  /** Since when each difference stands, by the clock of this device. */
  const since = $derived(
    Object.fromEntries(
      Object.entries(page.live.seen?.since ?? {}).map(([code, at]) => [code, at && hourOf(at)]),
    ),
  )
  /** A camera in a few words. */
  const asWords = (on: OnCamera) =>
    [on.lens, on.stop ? `${page.marks(on)}${aperture(on.stop)}` : '', on.format].filter(Boolean).join(', ')
  const whereWas = $derived(
    page.seen?.day.shots.find((each) => each.shot === page.lastSaid?.shot)?.name ??
      page.takes.find((each) => each.entry.shot === page.lastSaid?.shot)?.entry.shot_name ??
      '',
  )
  const lastName = $derived(last ? `${last.entry.shot_name} take ${last.entry.take}` : '')
  const circleWords = $derived(
    !last ? 'Circle' : last.entry.circled ? `${lastName} is circled` : `Circle ${lastName}`,
  )
  const closeM = $derived(page.lens?.close_m ?? 0.3)
  const focusM = $derived(page.on.focus_m ?? page.shot?.on?.focus_m ?? 3)
  const whyNoDepth = $derived(
    page.nearFar
      ? ''
      : !page.on.lens || !page.on.format
        ? 'Say which lens and which format are on: then near and far are told.'
        : page.on.stop === null
          ? 'Say the stop: then near and far are told.'
          : page.curves
            ? 'Nearer than this lens focuses, or a stop that it does not have.'
            : '',
  )
</script>

{#snippet correction(take: ListedTake)}<TakeCorrection {page} {take} {unit} {read} />{/snippet}

{#if shot}
  <div class="columns">
    <div class="main">
      {#if page.agrees}<Warnings differences={page.agrees.differences} {light} {since} />{/if}
      {#if page.live.seen?.listened}<LiveStatus
          seen={page.live.seen}
          broken={page.live.broken}
          onname={(name) => void page.nameSource(name)}
        />{/if}
      <header class="shot">
        <p class="now">
          <button
            class="knob"
            aria-label="Previous shot"
            disabled={page.shots[0] === shot}
            onclick={() => onstep(-1)}>‹</button
          >
          <span class="number"><strong>{shot.name}</strong> take <strong>{page.take}</strong></span>
          <button class="knob" aria-label="Next shot" disabled={!page.next} onclick={() => onstep(1)}
            >›</button
          >
        </p>
        <p>{shot.what}{shot.framing ? `, ${shot.framing}` : ''}</p>
      </header>
      {#if page.asItWas}
        <div class="asks" role="group" aria-label="What is on for {shot.name}">
          <p>
            <strong>{shot.name}</strong> on camera {page.unit}: {asWords(page.before)}, as planned? Or still {asWords(
              page.asItWas,
            )}, as it was{whereWas ? ` with ${whereWas}` : ''}?
          </p>
          <button class="knob" onclick={() => page.asPlanned()}>As planned</button>
          <button class="knob" onclick={() => page.stillAsItWas()}>Still as it was</button>
        </div>
      {/if}
      <OnCells
        on={page.on}
        planned={shot}
        body={page.body}
        bodies={page.seen?.day.bodies ?? []}
        lens={page.lens}
        held={page.agrees}
        onset={(part) => page.set(part)}
      />
      <FocusWheel
        {focusM}
        {closeM}
        {unit}
        sharp={page.nearFar}
        why={whyNoDepth}
        rule={page.curves
          ? `Circle of confusion ${page.curves.coc_mm.toPrecision(3)} mm for this shot: ${page.curves.rule}`
          : ''}
        {read}
        onchange={(metres) => page.set({ focus_m: metres })}
      />
      <div class="take">
        <button class="log" onclick={() => page.logTake()}>Log take {page.take}</button>
        <button class="knob" disabled={!last} onclick={() => page.circle()}>{circleWords}</button>
      </div>
      <div class="more">
        <button class="knob" disabled={!shot.on} onclick={() => page.asPlanned()}>Set as planned</button>
        <button class="knob" onclick={() => page.book('')}>From now on this</button>
        {#if page.logged}<button class="knob" onclick={() => page.undo()}>Undo the take</button>{/if}
        <button class="knob" disabled={!last} aria-expanded={noting} onclick={() => (noting = !noting)}
          >Note</button
        >
        {#if Object.keys(page.draft).length || page.booked}<button
            class="knob"
            onclick={() => page.takeBack()}>Back to what was on</button
          >{/if}
      </div>
      {#if noting && last}
        <label class="note"
          ><span class="soft">Note on {lastName}</span>
          <textarea
            class="written"
            rows="2"
            maxlength="2000"
            value={last.entry.note}
            onchange={(event) => {
              if (last) page.correct(last, { note: event.currentTarget.value.trim() })
              noting = false
            }}></textarea></label
        >
      {/if}
      <label class="who"
        ><span class="soft">Logged by</span>
        <input
          class="written"
          maxlength="60"
          autocomplete="off"
          placeholder="your name, so that others know whom to ask"
          value={page.by}
          onchange={(event) => page.name(event.currentTarget.value)}
        /></label
      >
    </div>
    <div class="side">
      <PlanCard
        planned={shot}
        made={page.seen?.day.plan ?? null}
        {unit}
        next={page.next}
        onnext={() => onstep(1)}
      />
      <section aria-label="Last takes">
        <h2>Last takes</h2>
        <TakeList
          takes={page.takes.filter((t) => t.entry.unit === page.unit).slice(0, 4)}
          {unit}
          marks={(on) => page.marks(on)}
          {correction}
          onchange={(take, part) => page.correct(take, part)}
        />
      </section>
    </div>
  </div>
{/if}

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
    gap: 18px;
    align-items: start;
  }
  .main,
  .side {
    display: grid;
    gap: 10px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .shot {
    display: grid;
    gap: 2px;
    font-size: 16px;
  }
  .now {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  .now .knob {
    min-width: 44px;
    min-height: 44px;
    font-size: 22px;
  }
  .number {
    flex: 1;
    font-size: 26px;
    line-height: 1.1;
  }
  .asks {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
    padding: 8px 10px;
    border: 2px solid var(--accent);
  }
  .asks p {
    grid-column: 1 / -1;
  }
  .asks .knob {
    min-height: 44px;
  }
  .take {
    display: grid;
    grid-template-columns: 2fr 1fr;
    gap: 8px;
  }
  .take .knob {
    min-height: 58px;
    white-space: normal;
  }
  .log {
    min-height: 58px;
    border-radius: 4px;
    background: var(--accent);
    color: var(--ground);
    font-size: 20px;
    font-weight: 600;
    cursor: pointer;
  }
  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .more .knob {
    flex: 1;
    min-height: 44px;
  }
  .note,
  .who {
    display: grid;
    font-size: 14px;
  }
  h2 {
    font-size: 16px;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
