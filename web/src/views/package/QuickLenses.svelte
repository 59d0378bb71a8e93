<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { Draft } from '../../lib/draft.svelte'
  import { Latest } from '../../lib/latest'
  import { pathTo, router } from '../../lib/router.svelte'
  import type { LensLine, LensLineAsk, Problem } from '../../lib/types'

  interface Props {
    productionId: number
  }
  let { productionId }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const draft = new Draft<LensLineAsk>(`hextan.lenses.${productionId}`, { line: '', name: '', mount: '' })
  const ask = $derived(draft.value)
  let answer = $state.raw<LensLine | null>(null)
  let problem = $state.raw<Problem | null>(null)
  let keeping = $state(false)
  const latest = new Latest(
    () => draft.value,
    async (asked, signal) => {
      const told = await client.lensLine(asked, signal)
      problem = told.problem ?? null
      if (told.data) answer = told.data
    },
  )

  function set(part: Partial<LensLineAsk>) {
    draft.set({ ...ask, ...part })
    latest.want()
  }

  onMount(async () => {
    const bodies = await client.listBodies(productionId)
    const mounts = [...new Set(bodies.data?.here.map((body) => body.mount))]
    // Lenses go on the body that is there, unless the line says another mount.
    if (mounts.length === 1) set({ mount: mounts[0] })
    else latest.want()
  })

  async function keep(event: SubmitEvent) {
    event.preventDefault()
    if (!answer?.document || keeping) return
    keeping = true
    const kept = await client.addLensSet(productionId, { document: answer.document })
    keeping = false
    problem = kept.problem ?? null
    if (!kept.data) return
    draft.clear()
    const bodies = await client.listBodies(productionId)
    router.go(
      bodies.data?.here.length
        ? pathTo(productionId, 'bench')
        : pathTo(productionId, 'package', 'bodies', 'new'),
    )
  }
</script>

<form onsubmit={keep}>
  <label class="line"
    ><span>Lenses in one line <span class="soft">focal lengths, T or f, a class, a mount</span></span>
    <input
      class="figure"
      value={ask.line}
      maxlength="2000"
      placeholder="18 25 35 50 85 T1.5 Super 35 K50"
      autocomplete="off"
      spellcheck="false"
      aria-invalid={(answer?.faults.length ?? 0) > 0}
      aria-describedby="understood"
      oninput={(event) => set({ line: event.currentTarget.value })}
    /></label
  >
  <div id="understood" class="told">
    {#if answer?.told.length}<p class="figure">{answer.told.join(' · ')}</p>{/if}
    {#each answer?.faults ?? [] as fault, i (i)}<p class="bad">{fault.value} {fault.rule}</p>{/each}
    {#each answer?.assumed ?? [] as text (text)}<p class="soft">{text}</p>{/each}
  </div>
  <p class="bar">
    <label class="item"
      ><span class="soft">Name of the set</span>
      <input
        class="set"
        value={ask.name}
        maxlength="80"
        placeholder={answer?.document?.name ?? 'as its lenses'}
        autocomplete="off"
        oninput={(event) => set({ name: event.currentTarget.value })}
      /></label
    >
    <button class="knob first" disabled={!answer?.document || keeping}>Keep these lenses</button>
    <a class="knob" href={pathTo(productionId, 'package', 'lenses')}>Back to the lenses</a>
    {#if problem}<span class="bad" role="alert">{problem.message}</span>{/if}
  </p>
</form>

<style>
  form {
    display: grid;
    gap: 12px;
    max-width: 60rem;
    padding-block: 10px;
  }
  .line {
    display: grid;
    gap: 4px;
  }
  .line input {
    width: 100%;
    padding: 6px 8px;
    border: 1px solid var(--line-strong);
    background: var(--panel);
  }
  .told {
    display: grid;
    gap: 3px;
    min-height: 3rem;
    font-size: 14px;
  }
  .first {
    border-color: var(--accent);
  }
</style>
