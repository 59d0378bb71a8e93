<script lang="ts">
  import { announcer } from '../../lib/announcer.svelte'
  import * as client from '../../lib/client'
  import { Quick } from '../../lib/quick.svelte'
  import { pathTo } from '../../lib/router.svelte'
  import { asked } from '../../lib/spans'
  import type { Anything, AnythingAsk, EquipmentAdded } from '../../lib/types'
  import type { SectionProps } from '../../lib/views'
  import SensorDrawing from '../../parts/drawings/SensorDrawing.svelte'
  import Made from '../../parts/entry/Made.svelte'
  import ReadText from '../../parts/entry/ReadText.svelte'
  import TextFile from '../../parts/entry/TextFile.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const quick = new Quick<AnythingAsk, Anything>(
    `hextan.paste.${productionId}`,
    { text: '', mounts: [], formats: ['raw', 'uhd', 'hd'] },
    client.anything,
  )
  const answer = $derived(quick.answer)
  const bodies = $derived(answer?.bodies.flatMap(({ document }) => document ?? []) ?? [])
  const sheet = $derived(answer?.bodies.find((body) => body.sheet)?.sheet)
  /** What was taken last, so that it can be taken back. */
  let taken = $state.raw<EquipmentAdded | null>(null)
  let back = $state('')

  $effect(() => {
    void client.readRig(productionId).then(({ data }) => {
      if (data) quick.set({ mounts: data.document.mounts.map((mount) => mount.name) })
    })
  })

  const some = (count: number, one: string, many = `${one}s`) =>
    count ? `${count} ${count === 1 ? one : many}` : ''
  const summary = $derived(
    answer
      ? [
          some(bodies.length, 'body', 'bodies'),
          some(
            bodies.reduce((sum, body) => sum + (body.modes ?? []).length, 0),
            'scan mode',
          ),
          some(
            bodies.reduce(
              (sum, body) => sum + (body.modes ?? []).reduce((n, mode) => n + (mode.formats ?? []).length, 0),
              0,
            ),
            'format',
          ),
          some(
            answer.lens_sets.reduce((sum, set) => sum + (set.lenses ?? []).length, 0),
            'lens',
            'lenses',
          ),
          some(answer.adapters.length, 'adapter'),
          some(answer.filters.length, 'filter'),
        ]
          .filter(Boolean)
          .join(', ')
      : '',
  )
  /** All that was understood, or nothing: a word that is open holds back what it stands in. */
  const ready = $derived(!!answer && summary !== '' && !asked(answer.spans).length && !answer.faults.length)

  async function take(event: SubmitEvent) {
    event.preventDefault()
    if (!answer || !ready) return
    const { lens_sets, adapters, filters } = answer
    const told = summary
    const kept = await quick.keep(() =>
      client.addEquipment(productionId, { bodies, lens_sets, adapters, filters }),
    )
    if (!kept) return
    taken = kept
    back = ''
    announcer.say(`Added: ${told}`)
    quick.set({ text: '' })
  }
  async function undo() {
    if (!taken) return
    const { problem } = await client.undoEquipment(productionId, taken)
    back = problem?.message ?? 'Undone.'
    announcer.say(back)
    if (!problem) taken = null
  }
</script>

<form onsubmit={take} class="paste">
  <div class="said">
    <label
      ><span>Paste anything <span class="soft">a page, a table, a list, a message</span></span>
      <textarea
        class="figure written"
        rows={Math.min(16, Math.max(6, (quick.asked.text ?? '').split('\n').length + 1))}
        value={quick.asked.text}
        maxlength="200000"
        spellcheck="false"
        autocomplete="off"
        oninput={(event) => quick.set({ text: event.currentTarget.value })}></textarea></label
    >
    <p class="bar"><TextFile label="or the text of a file" ontext={(text) => quick.set({ text })} /></p>
    <ReadText
      text={quick.asked.text ?? ''}
      spans={answer?.spans ?? []}
      ontext={(text) => quick.set({ text })}
    />
  </div>
  <div class="made">
    <p class="bar">
      <button class="knob first" disabled={!ready || quick.keeping}
        >{summary ? `Add ${summary}` : 'Add it'}</button
      >
      {#if taken}
        <button class="knob" type="button" onclick={undo}>Undo what was added</button>
        <a class="knob" href={pathTo(productionId, 'package', taken.bodies.length ? 'bodies' : 'lenses')}
          >Look at it</a
        >
      {/if}
      {#if back}<span class="soft" role="status">{back}</span>{/if}
      {#if quick.problem}<span class="bad" role="alert">{quick.problem.message}</span>{/if}
    </p>
    {#if sheet}
      <div class="sensor">
        <SensorDrawing {sheet} mode={undefined} format={undefined} onchoose={() => {}} />
      </div>
    {/if}
    {#if answer && quick.asked.text}<Made {answer} />
    {:else}<p class="drawing empty soft">
        Bodies, scan modes, formats, lenses, adapters and filters that are understood stand here, before
        anything is saved.
      </p>{/if}
  </div>
</form>

<style>
  .paste {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 10px 28px;
    align-items: start;
    padding-block: 10px;
  }
  .said,
  .made,
  label {
    display: grid;
    gap: 8px;
    min-width: 0;
  }
  textarea {
    font-size: 14px;
    resize: vertical;
  }
  .sensor {
    display: grid;
    height: 240px;
  }
  .empty {
    display: grid;
    place-items: center;
    min-height: 120px;
    padding: 1rem;
    text-align: center;
  }
  .first {
    white-space: normal;
    text-align: start;
    border-color: var(--accent);
  }
  @media (max-width: 900px) {
    .paste {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
