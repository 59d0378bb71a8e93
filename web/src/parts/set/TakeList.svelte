<script lang="ts">
  import type { Snippet } from 'svelte'
  import { aperture, distanceWithUnit } from '../../lib/format'
  import { clockOf, type ListedTake } from '../../lib/logEntries'
  import { trade } from '../../lib/trade.svelte'
  import type { OnCamera, Take, Unit } from '../../lib/types'

  interface Props {
    takes: readonly ListedTake[]
    unit: Unit
    /** The letter before a stop: T or f/, as the lens is marked. */
    marks: (on: OnCamera) => string
    /** What was on is said anew. */
    correction: Snippet<[ListedTake]>
    onchange: (take: ListedTake, part: Partial<Take>) => void
  }
  let { takes, unit, marks, correction, onchange }: Props = $props()
  let open = $state<string | null>(null)

  const stopOf = (on: OnCamera) => (on.stop ? `${marks(on)}${aperture(on.stop)}` : '')
  const distanceOf = (on: OnCamera) => (on.focus_m ? distanceWithUnit(on.focus_m, unit) : '')
  /** A figure and its unit stay on one line. */
  const whole = (text: string) => text.replaceAll(' ', '\u00a0')
  const told = ({ entry }: ListedTake) =>
    [entry.on.lens, stopOf(entry.on), distanceOf(entry.on), entry.on.card]
      .filter(Boolean)
      .map(whole)
      .join(' · ')
  const yes = (is: boolean) => (is ? 'yes' : 'no')
  const parts = ({ on, ...take }: Take): [string, unknown][] => [
    ['body', on.body],
    ['mode', on.mode],
    ['format', on.format],
    ['switches', on.crops?.join(', ')],
    ['lens', on.lens],
    ['focal length', on.focal_mm],
    ['stop', stopOf(on)],
    ['focus', distanceOf(on)],
    [trade.sensitivity, on.ei],
    ['ND', on.nd_stops],
    ['rate', on.fps],
    ['shutter', on.shutter_deg],
    ['card', on.card],
    ['take', take.take],
    ['circled', yes(take.circled)],
    ['note', take.note],
    ['removed', yes(take.removed)],
  ]
  const past = (before: Take, next: Take) => {
    const after = parts(next)
    return parts(before)
      .flatMap(([name, was], i) => {
        const is = after[i]?.[1]
        return was === is ? [] : [`${name} ${said(was)} → ${said(is)}`]
      })
      .join(', ')
  }
  const said = (value: unknown) => (value == null || value === '' ? '–' : String(value))
</script>

<ul class="takes">
  {#each takes as take (take.entry.key)}
    {@const { entry, seen } = take}
    <li class:waits={take.waiting}>
      <button
        class="row"
        aria-expanded={open === entry.key}
        onclick={() => (open = open === entry.key ? null : entry.key)}
      >
        <span class="figure">{take.clock}</span>
        <span
          ><strong>{entry.unit} {entry.shot_name || 'no shot'} take {entry.take}</strong>
          {#if entry.circled}<span class="accent">○ circled</span>{/if}
          <span class="soft">{told(take)}</span>
          {#if entry.note}<span>{entry.note}</span>{/if}</span
        >
        <span
          >{#if take.waiting}<span class="warn"
              >{take.waiting.state === 'waiting' ? 'waits' : take.waiting.state}</span
            >{:else if seen?.held.differences.length}<span class="bad"
              >{[...new Set(seen.held.differences.map((d) => d.name.toLowerCase()))].join(', ')}</span
            >{:else if seen?.held.told}<span class="ok">as planned</span>{/if}</span
        >
      </button>
      {#if seen?.double}<p class="warn">{seen.double}</p>{/if}
      {#if open === entry.key}
        <div class="detail">
          {#each seen?.held.differences ?? [] as d (d.code + d.name)}
            <p>
              <strong class={d.headline ? 'bad' : 'warn'}>{d.name}</strong>
              {d.used} for {d.planned}{d.effects.length ? `: ${d.effects.join(', ')}` : ''}.
            </p>
          {/each}
          {#if entry.said}<p class="soft">
              The camera said {entry.said.samples} samples{entry.said.changes.length
                ? ', and changed: '
                : ' and changed nothing.'}
              {entry.said.changes
                .map((c) => `${c.what} ${c.was} → ${c.now} at ${c.at.slice(11, 19)}`)
                .join('; ')}
              {entry.said.left_out ? `and ${entry.said.left_out} more` : ''}
            </p>{/if}
          <div class="ways">
            <button class="knob" onclick={() => onchange(take, { circled: !entry.circled })}
              >{entry.circled ? 'Not circled' : 'Circle it'}</button
            >
            <label class="knob"
              >Take <input
                class="set figure"
                size="3"
                inputmode="numeric"
                aria-label="Number of the take"
                value={entry.take}
                onchange={(event) => {
                  const number = Number(event.currentTarget.value)
                  if (Number.isInteger(number) && number > 0) onchange(take, { take: number })
                  else event.currentTarget.value = String(entry.take)
                }}
              /></label
            >
            <button class="knob" onclick={() => onchange(take, { removed: true })}>Remove it</button>
          </div>
          {@render correction(take)}
          <label class="note"
            ><span class="soft">Note</span>
            <textarea
              class="written"
              rows="2"
              maxlength="2000"
              value={entry.note}
              onchange={(event) => onchange(take, { note: event.currentTarget.value.trim() })}
            ></textarea></label
          >
          <p class="soft">
            Logged by {entry.by || 'somebody'} at {clockOf(entry)}.
          </p>
          {#each seen?.before ?? [] as before, i (i)}
            <p class="soft">
              Before {(seen?.before[i + 1] ?? entry).written_at.slice(11, 16)} UTC, by {before.by ||
                'somebody'}:
              {past(before, seen?.before[i + 1] ?? entry) || 'the same'}
            </p>
          {/each}
        </div>
      {/if}
    </li>
  {:else}
    <li class="soft">Nothing is logged on this day yet.</li>
  {/each}
</ul>

<style>
  .takes {
    display: grid;
    border-top: 1px solid var(--line);
  }
  li {
    border-bottom: 1px solid var(--line);
  }
  .row {
    display: grid;
    grid-template-columns: 4.2em minmax(0, 1fr) minmax(4.5em, auto);
    gap: 8px;
    width: 100%;
    min-height: 44px;
    padding: 5px 2px;
    text-align: left;
    cursor: pointer;
  }
  .row > :last-child {
    max-width: 11em;
    text-align: right;
  }
  .waits .figure {
    color: var(--warn);
  }
  .detail {
    display: grid;
    gap: 6px;
    padding: 4px 2px 10px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .note {
    display: grid;
  }
</style>
