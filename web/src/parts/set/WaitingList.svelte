<script lang="ts">
  import { aperture } from '../../lib/format'
  import { clockOf } from '../../lib/logEntries'
  import type { Waiting } from '../../lib/waiting'
  import type { LogEntry } from '../../lib/types'

  interface Props {
    items: readonly Waiting[]
    away: boolean
    unkept: boolean
    onsettle: (item: Waiting, stands: 'mine' | 'theirs') => void
    ondrop: (item: Waiting) => void
    onsend: () => void
  }
  let { items, away, unkept, onsettle, ondrop, onsend }: Props = $props()
  const waiting = $derived(items.filter((item) => item.state === 'waiting'))
  const stuck = $derived(items.filter((item) => item.state !== 'waiting'))
  const told = (entry: LogEntry) =>
    entry.kind === 'take'
      ? `${entry.unit} ${entry.shot_name || 'no shot'} take ${entry.take}${entry.circled ? ' ○' : ''}${entry.removed ? ', removed' : ''}: ${[entry.on.lens, entry.on.stop ? aperture(entry.on.stop) : '', entry.on.format, entry.note].filter(Boolean).join(' · ')}`
      : entry.kind === 'booking'
        ? `booked on ${entry.unit}: ${entry.on.lens}`
        : entry.kind === 'tick'
          ? `${entry.ticked ? 'ticked' : 'open'}: ${entry.body}${entry.note ? `, ${entry.note}` : ''}`
          : entry.facts.name
</script>

{#if waiting.length}
  <p class="line" role="status">
    <strong class="warn"
      >{waiting.length} {waiting.length === 1 ? 'entry waits' : 'entries wait'} for the line</strong
    >
    <span class="soft"
      >{unkept ? 'in this page alone: do not close it' : 'kept here'} since {waiting[0]?.since.slice(11, 16)} UTC,
      sent by {waiting.length === 1 ? 'itself' : 'themselves'}</span
    >
    <button class="knob" onclick={onsend}>Send now</button>
  </p>
{:else if away}
  <p class="line" role="status">
    <strong class="warn">No line.</strong>
    <span class="soft">What is shown is what was read last; what is logged waits here.</span>
  </p>
{/if}
{#each stuck as item (item.order)}
  <section class="stuck" role="alert">
    {#if item.state === 'conflict'}
      <p><strong class="bad">Two versions of one entry.</strong> {item.told}</p>
      <dl>
        <dt>Here, {item.entry.by || 'somebody'}, {clockOf(item.entry)}</dt>
        <dd>{told(item.entry)}</dd>
        <dt>There, {item.stored?.entry.by || 'somebody'}, {item.stored ? clockOf(item.stored.entry) : ''}</dt>
        <dd>{item.stored ? told(item.stored.entry) : 'nothing'}</dd>
      </dl>
      <p class="ways">
        <button class="knob" onclick={() => onsettle(item, 'mine')}>The one here stands</button>
        <button class="knob" onclick={() => onsettle(item, 'theirs')}>The one there stands</button>
      </p>
    {:else}
      <p><strong class="bad">Not taken:</strong> {told(item.entry)}. {item.told}</p>
      <p class="ways"><button class="knob" onclick={() => ondrop(item)}>Let it go</button></p>
    {/if}
  </section>
{/each}

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
  }
  .stuck {
    display: grid;
    gap: 4px;
    padding: 8px 10px;
    border: 1px solid var(--bad);
  }
  dt {
    font-size: 13px;
    color: var(--ink-soft);
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
