<script lang="ts">
  import { moved, OBJECTIVES, wholeOrder } from '../../lib/packing'
  import type { KitAnswer, KitPlan, KitStep } from '../../lib/types'
  import NumberField from '../fields/NumberField.svelte'

  interface Props {
    plan: KitPlan
    /** What each came to; none while nothing is known. */
    steps: KitAnswer['steps']
    fault: (path: string) => string | undefined
    onchange: (order: KitStep[]) => void
  }
  let { plan, steps, fault, onchange }: Props = $props()

  const order = $derived(wholeOrder(plan.order))
  /** The word that is being dragged, and where it would stand. */
  let held = $state<number | null>(null)
  let list = $state<HTMLElement>()
  let chosen = $state<number | null>(null)
  const shown = $derived(order[chosen ?? -1])

  function place(x: number, y: number): number {
    const items = [...(list?.querySelectorAll('li') ?? [])]
    const near = items.map((item, i) => {
      const box = item.getBoundingClientRect()
      return { i, far: Math.hypot(x - (box.left + box.right) / 2, 2 * (y - (box.top + box.bottom) / 2)) }
    })
    return near.toSorted((a, b) => a.far - b.far)[0]?.i ?? 0
  }
  function onpointermove(event: PointerEvent) {
    if (held === null) return
    const to = place(event.clientX, event.clientY)
    if (to === held) return
    onchange(moved(order, held, to))
    held = to
    chosen = to
  }
  function step(i: number, by: number) {
    const to = Math.max(0, Math.min(order.length - 1, i + by))
    onchange(moved(order, i, to))
    chosen = to
    queueMicrotask(() => list?.querySelectorAll('button')[to]?.focus())
  }
  const KEYS: Record<string, number> = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }
</script>

<div class="order">
  <ol bind:this={list} aria-label="By what the kit is made small, the first first">
    {#each order as { by, slack }, i (by)}
      {@const found = steps.find((each) => each.by === by)}
      <li>
        <span class="soft">{i === 0 ? 'first' : 'then'}</span>
        <button
          class="knob word"
          class:held={held === i}
          aria-pressed={chosen === i}
          title="{OBJECTIVES[by].about}. Drag it, or move it with the arrow keys."
          onclick={() => (chosen = chosen === i && held === null ? null : i)}
          onpointerdown={(event) => {
            held = i
            event.currentTarget.setPointerCapture(event.pointerId)
          }}
          {onpointermove}
          onpointerup={() => (held = null)}
          onpointercancel={() => (held = null)}
          onkeydown={(event) => {
            const by = KEYS[event.key]
            if (!by) return
            event.preventDefault()
            event.stopPropagation()
            step(i, by)
          }}
          >{OBJECTIVES[by].words}{#if slack > 0}<span class="soft">+{slack} </span>{/if}</button
        >
        {#if found}<span class="figure" class:unproved={!found.proved} title={found.proof}
            >{found.told}{found.proved ? '' : ' ?'}</span
          >{/if}
      </li>
    {/each}
  </ol>
  {#if shown && chosen !== null}
    {@const at = chosen}
    <p class="item">
      {OBJECTIVES[shown.by].about}; for what comes after it there may be
      <NumberField
        label="May be given up of {OBJECTIVES[shown.by].words}"
        value={shown.slack}
        fault={fault(`order[${at}].slack`)}
        onchange={(slack) =>
          onchange(order.map((each, i) => (i === at ? { ...each, slack: slack ?? 0 } : each)))}
      />
      {OBJECTIVES[shown.by].slack}
      <button class="knob small" disabled={at === 0} onclick={() => step(at, -1)}>earlier</button>
      <button class="knob small" disabled={at === order.length - 1} onclick={() => step(at, 1)}>later</button>
    </p>
  {/if}
</div>

<style>
  .order {
    display: grid;
    gap: 4px;
    font-size: 14px;
  }
  ol {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
  }
  li {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
  .word {
    cursor: grab;
    touch-action: none;
    min-height: 32px;
  }
  .held {
    cursor: grabbing;
    outline: 2px solid var(--accent);
  }
  .unproved {
    color: var(--warn);
  }
  @media (pointer: coarse) {
    .word {
      min-height: 44px;
    }
  }
</style>
