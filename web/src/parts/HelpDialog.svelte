<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte'
  import type { Shortcut } from '../lib/shortcuts'

  interface Props {
    open: boolean
    shortcuts: Shortcut[]
    /** Keys that a part of the view answers to by itself. */
    more: { keys: string; does: string }[]
    onopen: (open: boolean) => void
  }
  let { open, shortcuts, more, onopen }: Props = $props()
</script>

<Dialog {open} onOpenChange={(details) => onopen(details.open)}>
  <Portal>
    <Dialog.Backdrop class="fixed inset-0 z-50 bg-black/50" />
    <Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center p-4">
      <Dialog.Content class="help">
        <Dialog.Title class="title">Keys</Dialog.Title>
        {#if open}
          <dl>
            {#each shortcuts as shortcut (shortcut.keys)}
              <dt class="figure">{shortcut.keys}</dt>
              <dd>{shortcut.does}</dd>
            {/each}
            {#each more as { keys, does } (keys)}
              <dt class="figure">{keys}</dt>
              <dd>{does}</dd>
            {/each}
          </dl>
          <p class="soft">
            Distances can be typed as 2.9, 2.9m, 290cm, 9'6", 9ft 6in or 115in. Depth of field depends on what
            counts as sharp; the rule is in the header. No figure here replaces a test with the camera and
            lens at hand, and no distance is ever called safe: on boats, vehicles, heights and near water the
            safety supervisor decides.
          </p>
        {/if}
        <Dialog.CloseTrigger class="knob">Close</Dialog.CloseTrigger>
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  :global(.help) {
    max-width: 560px;
    max-height: 85vh;
    overflow-y: auto;
    padding: 1rem 1.3rem;
    background: var(--panel);
    border: 1px solid var(--line-strong);
    border-radius: 6px;
  }
  :global(.help .title) {
    font-size: 19px;
    font-weight: 600;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.25rem 1.1rem;
    margin: 0.6rem 0;
  }
  dt {
    color: var(--accent);
    white-space: nowrap;
    font-size: 13.5px;
  }
  p {
    margin-bottom: 0.8rem;
    font-size: 14px;
  }
</style>
