<script lang="ts">
  import type { Problem, ProductionFacts } from '../../lib/types'

  interface Props {
    /** What was refused of the last thing that was done. */
    problem: Problem | null
    demoHere: boolean
    /** Says whether it was made. */
    onbegin: (facts: ProductionFacts) => Promise<boolean>
    onfile: (file: File) => void
    ondemo: () => void
  }
  let { problem, demoHere, onbegin, onfile, ondemo }: Props = $props()
  let name = $state('')
  let unnamed = $state(false)
  const fault = $derived(
    unnamed ? 'Give it a name first.' : problem?.faults.find((f) => f.field === 'facts.name')?.rule,
  )

  async function submit(event: SubmitEvent) {
    event.preventDefault()
    unnamed = !name.trim()
    if (!unnamed && (await onbegin({ name, synopsis: '', starts_on: '', ends_on: '' }))) name = ''
  }

  function take(input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) onfile(file)
    input.value = ''
  }
</script>

<form onsubmit={submit}>
  <label
    ><span class="soft">New production</span>
    <input
      class="set"
      bind:value={name}
      maxlength="80"
      placeholder="its name"
      autocomplete="off"
      aria-invalid={fault !== undefined}
      aria-describedby={fault ? 'unnamed' : undefined}
    /></label
  >
  <button class="knob first">Begin with your own camera</button>
  <label class="knob pick"
    >From a file<input
      class="sr-only"
      type="file"
      accept=".json,application/json"
      onchange={(event) => take(event.currentTarget)}
    /></label
  >
  <button class="knob" type="button" onclick={ondemo}
    >{demoHere ? 'Begin the demo anew' : 'Add the demo'}</button
  >
</form>
{#if fault}<p class="bad" id="unnamed">{fault}</p>
{:else if problem}
  <div class="bad" role="alert">
    {#each problem.faults.slice(0, 12) as { field, rule }, i (i)}
      <p><strong>{field}</strong> {rule}</p>
    {:else}<p>{problem.message}</p>{/each}
    {#if problem.faults.length > 12}<p>And {problem.faults.length - 12} more.</p>{/if}
  </div>
{/if}

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 0.6rem;
    padding-block: 0.6rem;
    border-bottom: 1px solid var(--line);
  }
  input.set {
    width: 15rem;
    max-width: 100%;
  }
  .first {
    border-color: var(--accent);
  }
  .pick:focus-within {
    outline: 2px solid var(--accent);
  }
</style>
