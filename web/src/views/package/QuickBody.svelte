<script lang="ts">
  import { announcer } from '../../lib/announcer.svelte'
  import * as client from '../../lib/client'
  import { FORMATS_OFFERED } from '../../lib/generated/choices'
  import { Quick } from '../../lib/quick.svelte'
  import { pathTo, router } from '../../lib/router.svelte'
  import Toggles from '../../parts/controls/Toggles.svelte'
  import SensorDrawing from '../../parts/drawings/SensorDrawing.svelte'
  import { MODES_EXAMPLE, NO_BODY, NO_SENSOR, type SensorAsk } from '../../parts/entry/asks'
  import ModesRead from '../../parts/entry/ModesRead.svelte'
  import ReadText from '../../parts/entry/ReadText.svelte'
  import SensorFacts from '../../parts/entry/SensorFacts.svelte'
  import TextFile from '../../parts/entry/TextFile.svelte'

  interface Props {
    productionId: number
  }
  let { productionId }: Props = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const quick = new Quick(`hextan.body.${productionId}`, NO_BODY, client.quickBody)
  const ask = $derived(quick.asked)
  const answer = $derived(quick.answer)
  const problem = $derived(quick.problem)
  $effect(() => {
    const count = answer?.document?.modes.length
    if (count) announcer.say(`${count} scan mode${count === 1 ? '' : 's'} understood`)
  })

  const FORMATS = FORMATS_OFFERED.map(({ tick, label }) => ({ value: tick, label }))
  const NAMES = [
    { name: 'name', label: 'Camera', placeholder: 'its name' },
    { name: 'mount', label: 'mount', placeholder: 'not said' },
  ] as const
  const setSensor = (part: Partial<SensorAsk>) =>
    quick.set({ sensor: { ...(ask.sensor ?? NO_SENSOR), ...part } })

  async function keep(event: SubmitEvent) {
    event.preventDefault()
    const document = answer?.document
    const kept =
      document && (await quick.keep(() => client.addEquipment(productionId, { bodies: [document] })))
    if (!kept) return
    const sets = await client.listLensSets(productionId)
    // A first body wants lenses next; another one is looked at.
    if (sets.data?.here.length) router.go(pathTo(productionId, 'package', 'bodies', kept.bodies[0]?.id ?? 0))
    else router.go(pathTo(productionId, 'package', 'lenses', 'new'))
  }
</script>

<form onsubmit={keep} class="quick">
  <div class="said">
    <p class="bar">
      {#each NAMES as { name, label, placeholder } (name)}
        <label class="item"
          ><span class="soft">{label}</span>
          <input
            class="set {name}"
            value={ask[name]}
            maxlength="80"
            {placeholder}
            autocomplete="off"
            oninput={(event) => quick.set({ [name]: event.currentTarget.value })}
          /></label
        >
      {/each}
    </p>
    <section aria-labelledby="sensor">
      <h2 id="sensor">
        Sensor <span class="soft"
          >any two of area, photosites, pitch and class; or megapixels and class; or a crop</span
        >
      </h2>
      <SensorFacts sensor={ask.sensor ?? NO_SENSOR} {answer} onset={setSensor} />
    </section>
    <section aria-labelledby="modes">
      <h2 id="modes">
        Scan modes <span class="soft"
          >in the words of a menu or a spec page, a line each; or paste a page or a table</span
        >
      </h2>
      <textarea
        class="figure written"
        rows="5"
        aria-labelledby="modes"
        placeholder={MODES_EXAMPLE}
        spellcheck="false"
        value={ask.modes}
        oninput={(event) => quick.set({ modes: event.currentTarget.value })}></textarea>
      <ReadText text={ask.modes ?? ''} spans={answer?.spans ?? []} ontext={(modes) => quick.set({ modes })} />
      <p class="bar">
        <TextFile label="or the table from a file" ontext={(modes) => quick.set({ modes })} />
      </p>
      <p class="bar">
        <span class="soft">Record in each, where its window gives it</span>
        <Toggles
          label="Recording formats"
          options={FORMATS}
          value={ask.formats ?? []}
          onchange={(formats) => quick.set({ formats })}
        />
      </p>
    </section>
  </div>
  <div class="made">
    {#if answer?.sheet}
      <div class="sensor">
        <SensorDrawing sheet={answer.sheet} mode={undefined} format={undefined} onchoose={() => {}} />
      </div>
    {:else}
      <p class="drawing empty soft">The sensor is drawn here, to scale, as soon as its size is known.</p>
    {/if}
    {#if answer}
      <ModesRead
        {answer}
        formats={ask.formats ?? []}
        without={ask.without ?? []}
        also={ask.also ?? []}
        onwithout={(without) => quick.set({ without })}
        onalso={(also) => quick.set({ also })}
      />
      {#if answer.body.length}
        <ul class="missing" aria-label="What is said of the camera">
          {#each answer.body as told (told)}<li>{told}</li>{/each}
        </ul>
      {/if}
      <ul class="missing soft" aria-label="What is missing">
        {#each answer.missing as told (told)}<li>{told}</li>{/each}
      </ul>
    {/if}
  </div>
  <p class="bar keep">
    <button class="knob first" disabled={!answer?.document || quick.keeping}>Keep this camera</button>
    <a class="knob" href={pathTo(productionId, 'package', 'bodies')}>Back to the bodies</a>
    {#if problem}<span class="bad" role="alert">{problem.message}</span>
    {:else if answer?.faults.length}<span class="bad">{answer.faults[0]?.value} {answer.faults[0]?.rule}</span
      >{/if}
  </p>
</form>

<style>
  .quick {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 10px 28px;
    align-items: start;
  }
  .said,
  .made,
  section {
    display: grid;
    gap: 8px;
    min-width: 0;
  }
  .said {
    gap: 16px;
  }
  h2 .soft {
    font-size: 13px;
    font-weight: 400;
  }
  .name {
    width: 15rem;
  }
  .mount {
    width: 6rem;
  }
  textarea {
    font-size: 14px;
    resize: vertical;
  }
  .sensor {
    display: grid;
    height: 300px;
  }
  .empty {
    display: grid;
    place-items: center;
    height: 120px;
    padding: 1rem;
  }
  .missing {
    font-size: 13px;
  }
  .keep {
    grid-column: 1 / -1;
  }
  .first {
    border-color: var(--accent);
  }
  @media (max-width: 900px) {
    .quick {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
