<script lang="ts" generics="V extends string">
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte'

  interface Props {
    label: string
    /** Two to five choices, of which one holds; values have no spaces. */
    options: readonly { value: V; label: string }[]
    value: V
    onchange: (value: V) => void
  }
  let { label, options, value, onchange }: Props = $props()
</script>

<SegmentedControl
  {value}
  aria-label={label}
  onValueChange={(details) => {
    const found = options.find((option) => option.value === details.value)
    if (found) onchange(found.value)
  }}
>
  <SegmentedControl.Control>
    <SegmentedControl.Indicator />
    {#each options as option (option.value)}
      <SegmentedControl.Item value={option.value}>
        <SegmentedControl.ItemText>{option.label}</SegmentedControl.ItemText>
        <SegmentedControl.ItemHiddenInput />
      </SegmentedControl.Item>
    {/each}
  </SegmentedControl.Control>
</SegmentedControl>
