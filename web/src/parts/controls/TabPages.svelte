<script lang="ts" generics="V extends string">
  import { Tabs } from '@skeletonlabs/skeleton-svelte'
  import type { Snippet } from 'svelte'

  interface Props {
    label: string
    /** What can be seen, in order; values hold no spaces. */
    tabs: readonly { value: V; label: string }[]
    value: V
    onchange: (value: V) => void
    /** What stands in the same line. */
    beside?: Snippet
    children: Snippet
  }
  let { label, tabs, value, onchange, beside, children }: Props = $props()
</script>

<Tabs
  {value}
  onValueChange={(details) => {
    const found = tabs.find((tab) => tab.value === details.value)
    if (found) onchange(found.value)
  }}
>
  <div class="line">
    <Tabs.List aria-label={label}>
      {#each tabs as tab (tab.value)}<Tabs.Trigger value={tab.value}>{tab.label}</Tabs.Trigger>{/each}
    </Tabs.List>
    {@render beside?.()}
  </div>
  <Tabs.Content {value}>{@render children()}</Tabs.Content>
</Tabs>

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1rem;
    border-bottom: 1px solid var(--line);
  }
</style>
