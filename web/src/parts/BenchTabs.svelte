<script lang="ts">
  import { BENCH_TABS, noteTab, type BenchTab } from '../lib/benchTabs'

  interface Props {
    current: BenchTab
    onchoose: (tab: BenchTab) => void
  }
  let { current, onchoose }: Props = $props()
  const tabs = Object.entries(BENCH_TABS) as [BenchTab, string][]

  function choose(tab: BenchTab) {
    noteTab(tab)
    onchoose(tab)
  }

  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
    if (!by) return
    event.preventDefault()
    const at = tabs.findIndex(([tab]) => tab === current)
    const next = tabs[(at + by + tabs.length) % tabs.length]
    if (next) {
      choose(next[0])
      document.getElementById(`bench-tab-${next[0]}`)?.focus()
    }
  }
</script>

<div role="tablist" aria-label="Below the drawings">
  {#each tabs as [tab, label] (tab)}
    <button
      id="bench-tab-{tab}"
      role="tab"
      aria-selected={tab === current}
      tabindex={tab === current ? 0 : -1}
      onclick={() => choose(tab)}
      {onkeydown}>{label}</button
    >
  {/each}
</div>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.1rem;
  }
  button {
    padding: 2px 2px 4px;
    min-height: 30px;
    border-bottom: 2px solid transparent;
    color: var(--ink-soft);
    cursor: pointer;
  }
  button[aria-selected='true'] {
    color: var(--ink);
    border-bottom-color: var(--accent);
  }
</style>
