<script lang="ts">
  import { Asking } from '../../lib/asking.svelte'

  interface Props {
    /** Whose names are understood; none where productions themselves are shown. */
    productionId: number | null
    /** Before something is opened. */
    onleave?: () => void
    /** Whether it takes the focus at once. */
    focused?: boolean
  }
  let { productionId, onleave, focused = false }: Props = $props()
  // The field is made anew for another production.
  // svelte-ignore state_referenced_locally
  const asking = new Asking(productionId)
  let field = $state<HTMLInputElement>()
  let first = $state<HTMLAnchorElement>()
  const id = $props.id()

  $effect(() => {
    if (focused) field?.focus()
  })
  /** A word is changed where it stands. */
  function select(start: number, length: number) {
    field?.focus()
    field?.setSelectionRange(start, start + length)
  }
  /** Enter was pressed before the answer to the whole line was there. */
  let wanted = $state(false)
  function submit(event: SubmitEvent) {
    event.preventDefault()
    wanted = true
  }
  $effect(() => {
    if (!wanted || asking.answered !== asking.line) return
    wanted = false
    first?.click()
  })
</script>

<form onsubmit={submit} class="ask">
  <label
    ><span class="soft">Ask in one line</span>
    <input
      class="figure written"
      bind:this={field}
      value={asking.line}
      maxlength="200"
      placeholder={asking.asked?.examples.slice(0, 4).join('   ') ?? ''}
      autocomplete="off"
      spellcheck="false"
      aria-describedby={id}
      oninput={(event) => {
        wanted = false
        asking.type(event.currentTarget.value)
      }}
    /></label
  >
  <div {id}>
    {#if asking.problem}<p class="bad" role="alert">{asking.problem.message}</p>{/if}
    {#if asking.asked && asking.line.trim()}
      <p class="words">
        {#each asking.asked.words as { text, start, understood, could_be, skipped } (start)}
          <button
            type="button"
            class="knob small"
            class:bad={understood === null && !skipped}
            class:skipped
            onclick={() => select(start, text.length)}
            ><span class="figure">{text}</span>
            <span class="soft">{understood ?? (skipped ? 'skipped' : 'not understood')}</span></button
          >
          {#if understood === null && !skipped}<span class="bad">{could_be}</span>{/if}
        {/each}
      </p>
      {#if asking.asked.answers.length > 1}<p class="warn">
          {asking.asked.answers.length} readings of this line:
        </p>{/if}
      {#each asking.asked.answers as answer, i (answer.told)}
        {@const href = asking.benchOf(answer)}
        <section>
          <p class="told">{answer.told}</p>
          <dl>
            {#each answer.figures as { name, value } (name)}
              <div>
                <dt class="soft">{name}</dt>
                <dd class="figure">{value}</dd>
              </div>
            {/each}
          </dl>
          <ol class="soft">
            {#each answer.steps as step (step)}<li>{step}</li>{/each}
          </ol>
          {#if href}
            {#if i === 0}<a class="knob" {href} bind:this={first} onclick={onleave}
                >Set it on the Bench (Enter)</a
              >
            {:else}<a class="knob" {href} onclick={onleave}>Set it on the Bench</a>{/if}
          {/if}
        </section>
      {/each}
      {#each asking.asked.wants as want (want)}<p class="warn">{want}</p>{/each}
      {#if asking.asked.answers.length}<p class="soft terms">Read by {asking.asked.terms}.</p>{/if}
    {/if}
  </div>
</form>

<style>
  .ask {
    display: grid;
    gap: 8px;
    font-size: 14.5px;
  }
  label {
    display: grid;
    gap: 3px;
  }
  input {
    font-size: 16px;
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
    margin-bottom: 6px;
    padding: 0;
    background: none;
    font-size: 13px;
  }
  section {
    display: grid;
    gap: 4px;
    justify-items: start;
    padding-block: 4px 8px;
  }
  .skipped {
    text-decoration: line-through;
  }
  .terms {
    font-size: 13px;
  }
  .told {
    font-size: 18px;
    color: var(--accent);
  }
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 1.6rem;
  }
  ol {
    font-size: 13px;
  }
</style>
