<script lang="ts">
  import Down from '@lucide/svelte/icons/arrow-down'
  import Up from '@lucide/svelte/icons/arrow-up'
  interface Props {
    /** What the rows are, such as "scan mode". */
    what: string
    /** Whether a row is chosen, and can move up or down. */
    chosen: boolean
    up: boolean
    down: boolean
    onadd: () => void
    onduplicate: () => void
    onmove: (by: number) => void
    ondelete: () => void
  }
  let { what, chosen, up, down, onadd, onduplicate, onmove, ondelete }: Props = $props()
</script>

<span class="tools" role="group" aria-label="Rows: {what}">
  <button class="knob" onclick={onadd} title="Add {/^[aeiou]/.test(what) ? 'an' : 'a'} {what} (Alt Enter)"
    >Add</button
  >
  <button class="knob" disabled={!chosen} onclick={onduplicate}>Duplicate</button>
  <button class="knob" disabled={!up} onclick={() => onmove(-1)} title="Alt ↑" aria-label="Move the {what} up"
    ><Up size={14} /></button
  >
  <button
    class="knob"
    disabled={!down}
    onclick={() => onmove(1)}
    title="Alt ↓"
    aria-label="Move the {what} down"><Down size={14} /></button
  >
  <button class="knob" disabled={!chosen} onclick={ondelete} title="Alt Delete; undo brings it back"
    >Delete</button
  >
</span>

<style>
  .tools {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0.25rem;
    font-size: 14px;
  }
</style>
