<script lang="ts">
  import type { LiveSeen } from '../../lib/types'

  interface Props {
    seen: LiveSeen
    /** Whether the line to the server is broken. */
    broken: boolean
    /** Lets the camera go by a name that was heard. */
    onname: (name: string) => void
  }
  let { seen, broken, onname }: Props = $props()
  const others = $derived(seen.others.filter((each) => !each.speaks).map((each) => each.unit))
</script>

{#if broken}
  <p class="warn" role="status">No line: nothing new is heard of camera {seen.unit}.</p>
{:else if seen.speaks}
  <p class="soft" title="{seen.samples} samples">
    <span class="dot" aria-hidden="true"></span>
    {seen.body} speaks{seen.silent_s === null
      ? ''
      : `, last ${seen.silent_s.toFixed(1)} s ago`}{seen.recording ? ', and records' : ''}{seen.said?.changes
      .length
      ? ` · ${seen.said.changes.length} ${seen.said.changes.length === 1 ? 'change' : 'changes'} since the last take`
      : ''}
  </p>
{/if}
{#if seen.told}<p class="warn" role="status">{seen.body}: {seen.told}</p>{/if}
{#each seen.names as name (name)}<p>
    <button class="knob" onclick={() => onname(name)}>Camera {seen.unit} goes by {name}</button>
  </p>{/each}
{#each seen.notes as note (note)}<p class="warn">{note}</p>{/each}
{#if seen.match}
  <p class="match"><strong>{seen.match.told}</strong></p>
{/if}
{#if others.length}<p class="soft">No word from camera {others.join(', ')}.</p>{/if}

<style>
  .dot {
    display: inline-block;
    width: 9px;
    height: 9px;
    margin-right: 3px;
    border-radius: 50%;
    background: var(--ok);
  }
  .match {
    padding: 4px 10px;
    border-left: 3px solid var(--accent);
  }
</style>
