<script lang="ts">
  import { onMount } from 'svelte'
  import * as client from '../../lib/client'
  import { Quick } from '../../lib/quick.svelte'
  import ReadText from '../../parts/entry/ReadText.svelte'
  import TextFile from '../../parts/entry/TextFile.svelte'
  import { pathTo, router } from '../../lib/router.svelte'
  import type { LensLine, LensLineAsk } from '../../lib/types'

  interface Props {
    productionId: number
  }
  let { productionId }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const quick = new Quick<LensLineAsk, LensLine>(
    `hextan.lenses.${productionId}`,
    { line: '', name: '', mount: '', mounts: [] },
    client.lensLine,
  )
  const ask = $derived(quick.asked)
  const answer = $derived(quick.answer)
  /** Whether it is more than a line: a table. */
  const several = $derived((ask.line ?? '').includes('\n'))

  onMount(async () => {
    const bodies = await client.listBodies(productionId)
    const mounts = [...new Set(bodies.data?.here.map((body) => body.mount))]
    // Lenses go on the body that is there, unless the line says another mount.
    quick.set(mounts.length === 1 ? { mount: mounts[0], mounts } : { mounts })
  })

  async function keep(event: SubmitEvent) {
    event.preventDefault()
    const document = answer?.document
    const kept =
      document && (await quick.keep(() => client.addEquipment(productionId, { lens_sets: [document] })))
    if (!kept) return
    const bodies = await client.listBodies(productionId)
    if (bodies.data?.here.length) router.go(pathTo(productionId, 'bench'))
    else router.go(pathTo(productionId, 'package', 'bodies', 'new'))
  }
</script>

<form onsubmit={keep}>
  <label class="line"
    ><span
      >Lenses in one line <span class="soft"
        >or in many: focal lengths, T or f, a class, a mount; or paste a list, a message or a table</span
      ></span
    >
    <textarea
      class="figure written"
      rows={several ? Math.min(12, (ask.line ?? '').split('\n').length + 1) : 1}
      value={ask.line}
      maxlength="200000"
      placeholder="18 25 35 50 85 T1.5 Super 35 K50"
      autocomplete="off"
      spellcheck="false"
      aria-invalid={(answer?.faults.length ?? 0) > 0}
      aria-describedby="understood"
      onkeydown={(event) => {
        // In a single line Enter keeps the lenses, as in any field.
        if (event.key !== 'Enter' || event.shiftKey || several) return
        event.preventDefault()
        event.currentTarget.form?.requestSubmit()
      }}
      oninput={(event) => quick.set({ line: event.currentTarget.value })}></textarea></label
  >
  <ReadText text={ask.line ?? ''} spans={answer?.spans ?? []} ontext={(line) => quick.set({ line })} />
  <p class="bar"><TextFile label="or the table from a file" ontext={(line) => quick.set({ line })} /></p>
  <div id="understood" class="told">
    {#if answer?.columns.length}
      <p class="soft">
        A table: {answer.columns
          .filter((column) => column.taken_for !== null)
          .map((column) => `${column.title} as ${column.taken_for}`)
          .join(', ')}.
        {#if answer.columns.some((column) => column.taken_for === null)}<span class="warn"
            >Not understood, and left out: {answer.columns
              .filter((column) => column.taken_for === null)
              .map((column) => column.title)
              .join(', ')}.</span
          >{/if}
      </p>
    {/if}
    {#if answer?.told.length}<p class="figure">{answer.told.join(' · ')}</p>{/if}
    {#each answer?.faults ?? [] as fault, i (i)}<p class="bad">
        {fault.field === 'line' ? '' : `${fault.field}: `}{fault.value}
        {fault.rule}
      </p>{/each}
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
        oninput={(event) => quick.set({ name: event.currentTarget.value })}
      /></label
    >
    <button class="knob first" disabled={!answer?.document || quick.keeping}>Keep these lenses</button>
    <a class="knob" href={pathTo(productionId, 'package', 'lenses')}>Back to the lenses</a>
    {#if quick.problem}<span class="bad" role="alert">{quick.problem.message}</span>{/if}
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
  @media (pointer: coarse) {
    textarea {
      min-height: 44px;
    }
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
