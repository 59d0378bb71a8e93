<script lang="ts">
  interface Props {
    /** As the core writes it: 30 (readout 42.7). */
    text: string | undefined
  }
  let { text }: Props = $props()
  const figure = $derived(text?.replace(/ \(.*/, '') ?? '–')
  const limit = $derived(/\((.*)\)/.exec(text ?? '')?.[1])
</script>

{figure}{#if limit}<span class="soft">{limit}</span>{/if}

<style>
  span {
    margin-left: 0.35rem;
    font-family: var(--font-words);
    font-size: 12px;
  }
</style>
