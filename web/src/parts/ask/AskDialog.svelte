<script lang="ts">
  import AskField from './AskField.svelte'

  interface Props {
    open: boolean
    productionId: number | null
    onopen: (open: boolean) => void
  }
  let { open, productionId, onopen }: Props = $props()
  let dialog = $state<HTMLDialogElement>()

  // The browser's own: an answer leads to another view, and this one goes with the view that it lies over.
  $effect(() => {
    if (open) dialog?.showModal()
    else dialog?.close()
  })
</script>

<dialog bind:this={dialog} aria-label="A question in one line" onclose={() => onopen(false)}>
  {#if open}
    <AskField {productionId} focused onleave={() => onopen(false)} />
    <button class="knob" onclick={() => onopen(false)}>Close</button>
  {/if}
</dialog>

<style>
  dialog {
    width: min(760px, calc(100% - 2rem));
    max-height: 85vh;
    margin: 4rem auto auto;
    overflow-y: auto;
    padding: 1rem 1.3rem;
    background: var(--panel);
    color: var(--ink);
    border: 1px solid var(--line-strong);
    border-radius: 6px;
  }
  dialog::backdrop {
    background: rgb(0 0 0 / 50%);
  }
  .knob {
    display: block;
    margin: 0.6rem 0 0 auto;
  }
</style>
