<script lang="ts">
  import { pathTo } from '../../lib/router.svelte'
  import type { Production, ProductionFacts } from '../../lib/types'
  import GlanceDrawing from './GlanceDrawing.svelte'
  import { ago, days } from './windows'

  interface Props {
    production: Production
    largest: [number, number]
    /** Address of it as a file. */
    file: string
    onfacts: (facts: ProductionFacts) => void
    oncopy: (facts: ProductionFacts) => void
    onaway: () => void
  }
  let { production, largest, file, onfacts, oncopy, onaway }: Props = $props()

  const glance = $derived(production.glance)
  const facts = $derived<ProductionFacts>({
    name: production.name,
    synopsis: production.synopsis,
    starts_on: production.starts_on,
    ends_on: production.ends_on,
  })
  const lenses = $derived(glance.lenses === 1 ? '1 lens' : `${glance.lenses} lenses`)
  const when = $derived(days(facts.starts_on, facts.ends_on))
  const lacking = $derived(glance.missing.join(' and '))
  /** What is being changed of it, before it is kept. */
  let draft = $state<ProductionFacts | null>(null)

  function keep(event: SubmitEvent) {
    event.preventDefault()
    if (draft) onfacts($state.snapshot(draft))
    draft = null
  }
</script>

<li data-production={production.id}>
  <span class="drawing">
    {#if glance.bodies.length}<GlanceDrawing bodies={glance.bodies} {largest} />{/if}
  </span>
  <div class="told">
    {#if draft}
      <form onsubmit={keep}>
        <label>Name <input class="set" bind:value={draft.name} maxlength="80" required /></label>
        <label>from <input class="set" type="date" bind:value={draft.starts_on} /></label>
        <label>to <input class="set" type="date" min={draft.starts_on} bind:value={draft.ends_on} /></label>
        <label class="wide"
          >What it is <input class="set grow" bind:value={draft.synopsis} maxlength="2000" /></label
        >
        <button class="knob">Keep</button>
        <button class="knob" type="button" onclick={() => (draft = null)}>Leave as it was</button>
      </form>
    {:else}
      <h2>
        <a href={pathTo(production.id, lacking ? 'package' : 'bench')}>{production.name}</a>
        {#if production.demo}<span class="soft">demo</span>{/if}
      </h2>
      <p class="soft">
        {[when, `changed ${ago(production.changed_at, Date.now())}`].filter(Boolean).join(' · ')}
      </p>
      {#if production.synopsis}<p class="synopsis">{production.synopsis}</p>{/if}
      <p>
        {#if lacking}
          <span class="warn">It lacks {lacking}.</span>
          <a
            class="link"
            href={pathTo(production.id, 'package', glance.bodies.length ? 'lenses' : 'bodies', 'new')}
            >Enter it</a
          >
        {/if}
        {#if glance.bodies.length}{glance.bodies.map((b) => b.body).join(', ')}
          <span class="soft">· {glance.formats} recording formats</span>{/if}
        {#if glance.lens_sets.length}<br />{glance.lens_sets.join(', ')}
          <span class="soft">· {lenses}</span>{/if}
      </p>
    {/if}
  </div>
  {#if !draft}
    <div class="acts">
      <button
        class="knob"
        onclick={() => (draft = { ...facts })}
        aria-label="Name and days of {production.name}">Name and days</button
      >
      <button
        class="knob"
        onclick={() => oncopy({ ...facts, name: `${production.name.slice(0, 70)}, copy` })}
        aria-label="Copy {production.name}">Copy</button
      >
      <a class="knob" href={file} download aria-label="{production.name} as a file">As a file</a>
      <button class="knob" onclick={onaway} aria-label="Put {production.name} away">Put away</button>
    </div>
  {/if}
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 17rem minmax(0, 1fr) auto;
    gap: 0.4rem 1.4rem;
    align-items: center;
    padding-block: 0.9rem;
    border-bottom: 1px solid var(--line);
  }
  .drawing {
    display: grid;
    justify-content: end;
    border: 0;
    background: none;
  }
  h2 {
    font-size: 20px;
  }
  h2 a:hover {
    text-decoration: underline;
  }
  @media (pointer: coarse) {
    h2 a {
      display: inline-flex;
      align-items: center;
      min-height: 44px;
    }
  }
  h2 .soft {
    font-size: 14px;
  }
  .synopsis {
    max-width: 46rem;
  }
  form,
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 0.6rem;
  }
  .wide {
    flex: 1 1 20rem;
    display: flex;
    gap: 0.4rem;
  }
  .grow {
    flex: 1;
  }
  @media (max-width: 900px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
    .drawing {
      justify-content: start;
    }
  }
</style>
