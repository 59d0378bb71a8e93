<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte'
  import AskField from './AskField.svelte'

  interface Props {
    open: boolean
    productionId: number | null
    onopen: (open: boolean) => void
  }
  let { open, productionId, onopen }: Props = $props()
</script>

<Dialog {open} onOpenChange={(details) => onopen(details.open)}>
  <Portal>
    <Dialog.Backdrop class="fixed inset-0 z-50 bg-black/50" />
    <Dialog.Positioner class="fixed inset-0 z-50 grid justify-items-center content-start p-4 pt-16">
      <Dialog.Content class="asked">
        <Dialog.Title class="sr-only">A question in one line</Dialog.Title>
        {#if open}<AskField {productionId} focused onleave={() => onopen(false)} />{/if}
        <Dialog.CloseTrigger class="knob">Close</Dialog.CloseTrigger>
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  :global(.asked) {
    display: grid;
    gap: 8px;
    justify-items: end;
    width: min(760px, 100%);
    max-height: 85vh;
    overflow-y: auto;
    padding: 1rem 1.3rem;
    background: var(--panel);
    border: 1px solid var(--line-strong);
    border-radius: 6px;
  }
  :global(.asked form) {
    width: 100%;
  }
</style>
