<script lang="ts" generics="V extends string | number">
  import { ToggleGroup } from '@skeletonlabs/skeleton-svelte'

  interface Props {
    label: string
    options: readonly { value: V; label: string }[]
    /** Those that are on. */
    value: readonly V[]
    onchange: (value: V[]) => void
  }
  let { label, options, value, onchange }: Props = $props()
  // By place: what stands in an id may have no spaces.
  const on = $derived(options.flatMap((option, i) => (value.includes(option.value) ? [String(i)] : [])))
</script>

<ToggleGroup
  multiple
  value={on}
  aria-label={label}
  onValueChange={(details) => {
    const chosen = new Set(details.value)
    onchange(options.filter((_, i) => chosen.has(String(i))).map((option) => option.value))
  }}
>
  {#each options as option, i (option.value)}<ToggleGroup.Item value={String(i)}
      >{option.label}</ToggleGroup.Item
    >{/each}
</ToggleGroup>
