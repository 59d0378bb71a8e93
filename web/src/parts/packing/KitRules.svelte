<script lang="ts">
  import { sameThing, toggled, wordsOf } from '../../lib/packing'
  import { trade } from '../../lib/trade.svelte'
  import { weightUnit } from '../../lib/weights'
  import type { KitPlan, StockThing, ThingName } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'
  import NumberField from '../fields/NumberField.svelte'

  interface Props {
    plan: KitPlan
    things: readonly StockThing[]
    fault: (path: string) => string | undefined
    onchange: (part: Partial<KitPlan>) => void
  }
  let { plan, things, fault, onchange }: Props = $props()

  type List = 'only' | 'must' | 'never'
  const LISTS: { list: List; words: string; add: string }[] = [
    { list: 'only', words: 'only out of', add: 'Choose only out of …' },
    { list: 'must', words: 'must carry', add: 'Must carry …' },
    { list: 'never', words: 'never', add: 'Never carry …' },
  ]
  const plain = (thing: StockThing): ThingName => ({ kind: thing.kind, name: thing.name, of: thing.of })
  const sets = $derived([...new Set(things.filter((t) => t.kind === 'lens').map((t) => t.of))])
  const known = $derived<{ name: ThingName; group: string }[]>([
    ...things.filter((t) => t.kind === 'body').map((t) => ({ name: plain(t), group: 'Bodies' })),
    ...sets.map((of) => ({ name: { kind: 'lens' as const, name: '', of }, group: 'Lens sets' })),
    ...things.filter((t) => t.kind === 'lens').map((t) => ({ name: plain(t), group: t.of })),
    ...things.filter((t) => t.kind === 'adapter').map((t) => ({ name: plain(t), group: 'Adapters' })),
  ])
  const options = (list: List) =>
    known.flatMap(({ name, group }, i) =>
      plan[list].some((other) => sameThing(other, name)) ? [] : [{ value: i, label: wordsOf(name), group }],
    )
  function add(list: List, place: number) {
    const name = known[place]?.name
    if (name) onchange({ [list]: toggled(plan[list], name, true) })
  }
</script>

<div class="rules">
  {#each LISTS as { list, words, add: placeholder } (list)}
    <span class="item">
      <span class="soft">{words}</span>
      <span class="print-only">{plan[list].map(wordsOf).join(', ') || '–'}</span>
      {#each plan[list] as thing (JSON.stringify(thing))}
        <button
          class="knob small"
          title="Let {wordsOf(thing)} go"
          aria-label="{words} {wordsOf(thing)}: let it go"
          onclick={() => onchange({ [list]: toggled(plan[list], thing, false) })}>{wordsOf(thing)} ×</button
        >
      {/each}
      <Choice
        label={placeholder}
        options={options(list)}
        value={null}
        placeholder={list === 'only' && !plan.only.length ? 'everything' : '+'}
        search
        onchange={(place) => place !== null && add(list, Number(place))}
      />
    </span>
  {/each}
  <span class="item"
    ><span class="soft">at most</span>
    <EntryField
      label="Weight limit"
      kind="weight"
      unit={trade.unit}
      placeholder="any"
      value={plan.weight_limit_kg}
      fault={fault('weight_limit_kg')}
      oninput={(kg) => onchange({ weight_limit_kg: kg as number | null })}
    />
    {weightUnit(trade.unit)}</span
  >
  <span class="item"
    ><span class="soft">a framing may be off by</span>
    <NumberField
      label="Framing may be off by"
      value={plan.framing_percent}
      fault={fault('framing_percent')}
      onchange={(percent) => onchange({ framing_percent: percent ?? 3 })}
    /> %</span
  >
</div>

<style>
  .rules {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    font-size: 14px;
  }
  /* Among words a field is seen by its line, as those beside it. */
  .rules :global(input.set) {
    border-bottom-color: var(--line-strong);
    text-align: left;
  }
</style>
