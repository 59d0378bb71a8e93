<script lang="ts">
  import { Portal } from '@skeletonlabs/skeleton-svelte'

  interface Props {
    /** Ties the field to it: `aria-describedby`. */
    id: string
    text: string
    /** The field that it belongs to. */
    field: HTMLElement | undefined
  }
  let { id, text, field }: Props = $props()
  const WIDEST = 320

  let left = $state(0)
  let top = $state(0)
  // Outside of everything that cuts off what sticks out, just below the field.
  function place() {
    const box = field?.getBoundingClientRect()
    if (!box) return
    left = scrollX + Math.max(4, Math.min(box.left, innerWidth - WIDEST - 4))
    top = scrollY + box.bottom
  }
  $effect(() => {
    void text
    place()
    // Also when something else than the page is scrolled.
    addEventListener('scroll', place, true)
    return () => removeEventListener('scroll', place, true)
  })
</script>

<svelte:window onresize={place} />
<Portal>
  <span {id} class="note" role="alert" style:left="{left}px" style:top="{top}px" style:max-width="{WIDEST}px"
    >{text}</span
  >
</Portal>

<style>
  .note {
    position: absolute;
    z-index: 40;
    width: max-content;
    padding: 0.2rem 0.5rem;
    background: var(--panel);
    border: 1px solid var(--bad);
    color: var(--bad);
    font-size: 13px;
  }
</style>
