<script lang="ts">
  import { onMount, untrack } from 'svelte'
  import * as client from '../lib/client'
  import { count, money, newKit, reordered } from '../lib/packing'
  import { KitSearch, PackingEditor, ShownStock } from '../lib/packing.svelte'
  import { whenWords } from '../lib/format'
  import { PlanNow } from '../lib/plan.svelte'
  import { pathTo, router } from '../lib/router.svelte'
  import { freeName, newKey } from '../lib/rows'
  import { trade } from '../lib/trade.svelte'
  import type { KitPlan, KitShot, Problem, ThingName } from '../lib/types'
  import type { ViewProps } from '../lib/views'
  import { weightWords } from '../lib/weights'
  import Choice from '../parts/controls/Choice.svelte'
  import TabPages from '../parts/controls/TabPages.svelte'
  import EntryField from '../parts/fields/EntryField.svelte'
  import NumberField from '../parts/fields/NumberField.svelte'
  import Grid from '../parts/grid/Grid.svelte'
  import KitDays from '../parts/packing/KitDays.svelte'
  import KitGrid from '../parts/packing/KitGrid.svelte'
  import KitOrder from '../parts/packing/KitOrder.svelte'
  import KitReasons from '../parts/packing/KitReasons.svelte'
  import KitRent from '../parts/packing/KitRent.svelte'
  import KitRules from '../parts/packing/KitRules.svelte'
  import KitSides from '../parts/packing/KitSides.svelte'
  import KitSize from '../parts/packing/KitSize.svelte'
  import PlanLine from '../parts/packing/PlanLine.svelte'
  import { stockColumns } from '../parts/packing/stockColumns'
  import Begin from '../parts/page/Begin.svelte'
  import KeptState from '../parts/page/KeptState.svelte'
  import ViewFrame from '../parts/page/ViewFrame.svelte'

  let { productionId, rest }: ViewProps = $props()
  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const id = productionId

  let editor = $state.raw<PackingEditor | null>(null)
  let productionName = $state('')
  let unread = $state.raw<Problem | null>(null)
  let tab = $state<'kit' | 'sides' | 'things'>('kit')
  let shotKey = $state<string | undefined>()
  let place = $state<number | null>(null)
  let alone = $state(false)
  let shotCount = $state<number | null>(null)
  const search = new KitSearch(id)
  const sides = new KitSearch(id)
  const planNow = new PlanNow(id)

  async function open() {
    const [packing, production, shots] = await Promise.all([
      client.readPacking(id),
      client.readProduction(id),
      client.readShots(id),
    ])
    unread = packing.problem ?? production.problem ?? shots.problem ?? null
    productionName = production.data?.facts.name ?? ''
    shotCount = shots.data?.document.shots.length ?? null
    if (packing.data) editor = new PackingEditor(id, packing.data)
  }
  onMount(() => {
    void open()
    return () => {
      editor?.close()
      search.close()
      sides.close()
    }
  })

  const document = $derived(editor?.document)
  /** A production without a kit has one that asks for the smallest. */
  const FIRST: KitPlan = { ...newKit([]), key: 'smallest', name: 'Smallest kit' }
  const kits = $derived(document?.kits.length ? document.kits : [FIRST])
  const plan = $derived(kits.find((kit) => kit.key === rest[0]) ?? kits[0] ?? FIRST)
  const index = $derived(kits.indexOf(plan))
  const things = $derived(editor?.sheet?.things ?? [])
  const stock = $derived(editor && new ShownStock(editor))
  let otherKey = $state<string | undefined>()
  const other = $derived(
    kits.find((kit) => kit.key === otherKey && kit !== plan) ?? kits.find((kit) => kit !== plan),
  )
  const ready = $derived(
    shotCount !== null &&
      shotCount > 0 &&
      things.some((t) => t.kind === 'lens') &&
      things.some((t) => t.kind === 'body'),
  )

  // A kit is looked for as long as nothing of it is refused.
  const faulty = $derived(Object.keys(editor?.faults ?? {}).length > 0)
  const asked = $derived(document && { ...document, kits })
  $effect(() => {
    const [wanted, key] = [asked, plan.key]
    if (wanted && ready && !faulty) untrack(() => search.ask(wanted, [key]))
  })
  $effect(() => {
    const [wanted, pair] = [asked, other && [plan.key, other.key]]
    if (wanted && ready && !faulty && tab === 'sides' && pair) untrack(() => sides.ask(wanted, pair))
  })

  // What the plan stands against is what is kept.
  $effect(() => {
    if (editor?.kept) untrack(() => void planNow.read())
  })
  const kit = $derived(search.seen?.kit ?? null)
  const atWork = $derived(search.seen?.state === 'running' || search.seen?.state === 'waiting')
  const shot = $derived(kit?.shots.find((each) => each.key === shotKey))

  function put(changed: KitPlan[]) {
    if (editor && document) editor.change({ ...document, kits: changed }, `kits.${plan.key}`)
  }
  const setPlan = (part: Partial<KitPlan>) =>
    put(kits.map((each) => (each === plan ? { ...each, ...part } : each)))
  function go(key: string) {
    place = null
    router.go(`${pathTo(id, 'kit')}/${key}`)
  }
  function add(like?: KitPlan) {
    const fresh = newKit(kits)
    const made = like ? { ...like, key: newKey(), name: freeName(like.name, kits) } : fresh
    put([...kits, made])
    go(made.key)
  }
  function remove() {
    const left = kits.filter((each) => each !== plan)
    put(left)
    go(left[0]?.key ?? FIRST.key)
  }
  function keep() {
    if (plan.kept) return setPlan({ kept: null })
    // Only what is found for what is asked now.
    if (!kit || kit.why || search.stale) return
    setPlan({ kept: kit.things.map((t): ThingName => ({ kind: t.kind, name: t.name, of: t.of })) })
  }

  async function order(keys: string[]) {
    const { data, problem } = await client.readShots(id)
    unread = problem ?? null
    if (!data) return
    const shots = reordered(data.document.shots, keys)
    const kept = await client.writeShots(id, data.version, { ...data.document, shots })
    unread = kept.problem ?? null
    if (asked) search.ask(asked, [plan.key])
    void planNow.read()
  }
  const TABS = [
    { value: 'kit', label: 'This kit' },
    { value: 'sides', label: 'Side by side' },
    { value: 'things', label: 'Things and prices' },
  ] as const
  const fault = (path: string) => editor?.fault(`kits[${index}].${path}`)
  const at = (by: number) => {
    const next = kits[Math.max(0, Math.min(kits.length - 1, index + by))]
    if (next && next !== plan) go(next.key)
  }
  const keys = [
    { keys: '.', on: ['.'], does: 'Next kit', run: () => at(1) },
    { keys: ',', on: [','], does: 'Previous kit', run: () => at(-1) },
    { keys: 'k', on: ['k'], does: 'Keep the kit, or let it be looked for again', run: () => keep() },
    { keys: 'x', on: ['x'], does: 'Stop the search', run: () => void search.stop() },
  ]
</script>

<ViewFrame
  productionId={id}
  {productionName}
  current="kit"
  heading="Kit"
  sheet={{ kind: 'kit', which: document?.kits.length ? plan.name : '' }}
  undo={editor && { steps: editor.steps, undo: () => editor?.undo(), redo: () => editor?.redo() }}
  {keys}
  what="packing"
  problem={editor?.problem ?? unread ?? search.problem ?? planNow.problem}
  differences={editor?.differences ?? null}
  onresolve={(take) => editor?.resolve(take)}
  onundo={editor?.steps.back ? () => editor?.undo() : null}
  onretry={() => {
    if (!editor) return void open()
    editor.retry()
    search.retry()
    sides.retry()
    void planNow.read()
  }}
  waiting={editor === null}
>
  {#if editor && document && stock}
    <div class="content">
      <div class="bar">
        <span class="item">
          <Choice
            label="Kit"
            options={kits.map((each) => ({ value: each.key, label: each.name }))}
            value={plan.key}
            onchange={(key) => go(String(key))}
          />
          <span class="soft">called</span>
          <EntryField
            label="Name of the kit"
            kind="text"
            size={18}
            value={plan.name}
            fault={fault('name')}
            oninput={(name) => setPlan({ name: String(name) })}
          />
          <button class="knob small" onclick={() => add()}>New kit</button>
          <button class="knob small" onclick={() => add(plan)}>Copy</button>
          <button class="knob small" disabled={!document.kits.length} onclick={remove}>Delete</button>
        </span>
        <KeptState faults={editor.faults} words={(path) => path} />
      </div>
      {#if editor.sheet && !ready}
        {#if shotCount === 0}
          <p>
            A kit is for shots, and there are none yet: <a class="link" href={pathTo(id, 'shots')}
              >write them down</a
            >, or keep what is on the <a class="link" href={pathTo(id, 'bench')}>Bench</a> as a shot.
          </p>
        {:else}<Begin productionId={id} what="A kit" />{/if}
      {:else}
        {#if planNow.view}
          <PlanLine
            plan={planNow.view}
            kitAddress={(key) => `${pathTo(id, 'kit')}/${key}`}
            shotAddress={(key) => `${pathTo(id, 'shots')}?shot=${key}`}
          >
            {#snippet ways()}{#if planNow.view?.made_at}<button
                  class="knob small"
                  onclick={() => asked && void planNow.make(asked, null)}>No plan</button
                >{/if}
              {#if planNow.before?.made_at}<button
                  class="knob small"
                  disabled={planNow.busy}
                  onclick={() => asked && void planNow.back(asked)}
                  >Back to the plan before: {planNow.before.name}, {whenWords(planNow.before.made_at)}</button
                >{/if}{/snippet}
          </PlanLine>
        {/if}
        <section class="head" class:stale={search.stale} aria-label="The kit" aria-busy={atWork}>
          {#if kit}
            {#if kit.why}<p class="bad">{kit.why}</p>
            {:else}
              <p class="sum">
                <span class="big accent">{count(kit.lenses, 'lens', 'lenses')}</span>
                <span class="much"
                  >{kit.lenses === 1 ? 'does' : 'do'}
                  {kit.shots_done} of {count(kit.shots_asked, 'shot')}.</span
                >
                {#if kit.kept}<span class="soft">kept by hand</span>
                {:else if kit.proved}<span class="ok">✓ proved smallest</span>
                {:else}<span class="warn"
                    >≈ {kit.steps.find((step) => !step.proved)?.proof ??
                      'stopped before everything was looked at'}{kit.stopped ? '; stopped' : ''}</span
                  >{/if}
                <span
                  >{weightWords(kit.weight_kg, trade.unit, 1)}{#if kit.weight_unknown.length}<span
                      class="warn"
                      title="No weight is stated of {kit.weight_unknown.join(', ')}"
                    >
                      +?</span
                    >{/if}</span
                >
                {#if kit.rent.length}<span>{money(kit.cost, kit.currency)}</span>{/if}
                <span class="soft">{count(kit.changes, 'change')}, {Math.round(kit.minutes)} min</span>
                {#if kit.others.some((each) => each.tie)}<span class="soft">others are as good</span>{/if}
              </p>
            {/if}
            {#if kit.gone.length}<p class="warn">Not in the package any more: {kit.gone.join(', ')}.</p>{/if}
            {#if kit.disagree.length}<p class="bad">
                Judged again with these things alone, {kit.disagree.join(', ')} cannot be done: do not rely on this
                kit.
              </p>{/if}
          {:else if search.seen?.problem}<p class="bad">{search.seen.problem}</p>
          {:else}<p class="sum"><span class="big soft">…</span></p>{/if}
          <p class="under soft" role="status">
            {#if atWork}<span>{search.seen?.told} … {search.seen?.seconds.toFixed(0)} s</span>
              <button class="knob small" onclick={() => void search.stop()}
                >Stop, and take the best so far</button
              >
            {:else if search.seen}<span>{search.seen.seconds.toFixed(1)} s</span>{/if}
            {#if kit && !kit.why}<button class="knob small" onclick={keep}
                >{plan.kept ? 'Let it be looked for again' : 'Keep this kit'}</button
              >
              <button
                class="knob small"
                disabled={atWork || search.stale || planNow.busy || faulty}
                title="Shots, the Set and the sheets then take what this kit makes each shot with"
                onclick={() => asked && void planNow.make(asked, plan.key)}
                >{planNow.view?.made_at && planNow.view.kit === plan.key
                  ? 'Make it the plan anew'
                  : 'Make this the plan'}</button
              >{/if}
          </p>
        </section>
        {#if !plan.kept}
          <KitOrder {plan} steps={kit?.steps ?? []} {fault} onchange={(next) => setPlan({ order: next })} />
        {/if}
        <KitRules {plan} {things} {fault} onchange={setPlan} />
        <TabPages label="Kit" tabs={TABS} value={tab} onchange={(value) => (tab = value)}>
          {#if tab === 'kit' && kit && !kit.why}
            <div class="page">
              <KitGrid
                {kit}
                shot={shotKey}
                thing={place}
                onshot={(key) => (shotKey = key === shotKey ? undefined : key)}
                onthing={(at) => (place = at === place ? null : at)}
              />
              <div class="middle">
                <div class="page">
                  <KitReasons {kit} {shot} thing={place} onthing={(at) => (place = at === place ? null : at)}>
                    {#snippet ways(each: KitShot)}<a class="link" href="{pathTo(id, 'shots')}?shot={each.key}"
                        >its needs</a
                      >{/snippet}
                  </KitReasons><KitSize {kit} {atWork} onshot={(key) => (shotKey = key)} />
                </div>
                <KitDays {kit} onshot={(key) => (shotKey = key)} onorder={(keys) => void order(keys)} />
              </div>
              <KitRent {kit} />
            </div>
          {:else if tab === 'sides'}
            <div class="page">
              {#if other}
                <div class="bar">
                  <span class="item"
                    ><span class="soft">{plan.name} beside</span>
                    <Choice
                      label="Other kit"
                      options={kits
                        .filter((each) => each !== plan)
                        .map((each) => ({ value: each.key, label: each.name }))}
                      value={other.key}
                      onchange={(key) => (otherKey = String(key))}
                    /></span
                  >
                  <label class="item"
                    ><input type="checkbox" bind:checked={alone} /> only shots that one alone does</label
                  >
                  {#if sides.seen?.state === 'running' || sides.seen?.state === 'waiting'}<span class="soft"
                      >{sides.seen.told} …</span
                    >{/if}
                </div>
                {#if sides.seen?.sides}<KitSides sides={sides.seen.sides} {alone} />
                {:else if sides.seen?.problem}<p class="bad">{sides.seen.problem}</p>{/if}
              {:else}
                <p>
                  There is one kit alone. <button class="knob small" onclick={() => add()}
                    >Make another</button
                  > and choose what it is made out of: a body with three primes, another with a zoom.
                </p>
              {/if}
            </div>
          {:else if tab === 'things'}
            <div class="page">
              <div class="bar">
                <span class="item"
                  ><span class="soft">prices in</span>
                  <EntryField
                    label="Currency"
                    kind="text"
                    size={5}
                    value={document.currency}
                    fault={editor.fault('currency')}
                    oninput={(value) => editor?.set('currency', value)}
                  /></span
                >
                <span class="item"
                  ><span class="soft">rented for</span>
                  <NumberField
                    label="Days of hire"
                    optional
                    value={document.hire_days}
                    fault={editor.fault('hire_days')}
                    onchange={(value) => editor?.set('hire_days', value)}
                  /> days
                  <span class="soft">(the shots name {editor.sheet?.days.filter(Boolean).length ?? 0})</span
                  ></span
                >
                {#each [{ key: 'lens', words: 'a lens change' }, { key: 'body', words: 'another body' }, { key: 'gimbal', words: 'balancing a gimbal' }, { key: 'mode', words: 'another scan mode' }] as const as move (move.key)}
                  <span class="item"
                    ><span class="soft">{move.words}</span>
                    <NumberField
                      label="Minutes of {move.words}"
                      size={3}
                      value={document.moves[move.key]}
                      fault={editor.fault(`moves.${move.key}`)}
                      onchange={(value) => editor?.set(`moves.${move.key}`, value ?? 0)}
                    /> min</span
                  >
                {/each}
                {#each Object.entries(editor.sheet?.units_on ?? {}).filter(([day, units]) => day && units.length > 1) as [day, units] (day)}
                  {@const on = document.together_on?.includes(day) ?? true}
                  <label class="item"
                    ><input
                      type="checkbox"
                      checked={on}
                      onchange={() => {
                        const several = Object.entries(editor?.sheet?.units_on ?? {})
                          .filter(([name, each]) => name && each.length > 1)
                          .map(([name]) => name)
                        const now = document.together_on ?? several
                        editor?.set('together_on', on ? now.filter((name) => name !== day) : [...now, day])
                      }}
                    />
                    {units.join(' and ')} work at the same time on day {day}</label
                  >
                {/each}
              </div>
              <Grid
                label="Things and prices"
                columns={stockColumns(document.currency, editor.sheet?.hire_days ?? 1, trade.unit)}
                rows={stock.rows}
                path="stock"
                empty="No equipment yet."
                faults={stock.faults}
                chosen={undefined}
                make={(rows) => rows.at(-1) as (typeof stock.rows)[number]}
                onset={(path, value) => stock.set(path, value)}
                onchoose={() => {}}
                onkeydown={() => {}}
              />
            </div>
          {/if}
        </TabPages>
      {/if}
    </div>
  {/if}
</ViewFrame>

<style>
  .content,
  .page {
    display: grid;
    gap: 8px;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .page {
    gap: 14px;
    padding-top: 8px;
  }
  .page .page {
    padding-top: 0;
  }
  .sum {
    display: flex;
    flex-wrap: wrap;
    gap: 0 16px;
    align-items: baseline;
  }
  .big {
    font-size: 26px;
  }
  .much {
    font-size: 17px;
  }
  .under {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
    min-height: 28px;
    font-size: 13px;
  }
  .stale .sum {
    opacity: 0.55;
  }
  .middle {
    display: grid;
    grid-template-columns: minmax(0, 4fr) minmax(0, 5fr);
    gap: 14px;
    align-items: start;
  }
  @media (max-width: 1100px) {
    .middle {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
