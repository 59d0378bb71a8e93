<script lang="ts">
  import type { Problem } from '../lib/types'

  interface Props {
    /** What can be had; without an address it is not ready yet. */
    outs: { title: string; told: string; href: string | null }[]
    /** Heading of what a table brings in, its template, and what it does. */
    heading: string
    template: string
    told: string
    wholes: string
    /** Why a file was refused, and what could not be taken over of one that was read. */
    problem: Problem | null
    notes: string[]
    ontable: (file: File) => void
  }
  let { outs, heading, template, told, wholes, problem, notes, ontable }: Props = $props()

  function take(input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) ontable(file)
    input.value = ''
  }
</script>

<div class="files">
  <section>
    <h3>Out</h3>
    <ul>
      {#each outs as out (out.title)}
        <li>
          {#if out.href}<a href={out.href} download>{out.title}</a>{:else}{out.title}…{/if}
          <span class="soft">{out.told}</span>
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h3>{heading}</h3>
    <p class="soft">
      A table (<a href={template} download>template</a>). {told} All of it or nothing. Undo takes it back.
    </p>
    <label class="knob pick"
      >Choose a CSV file<input
        class="sr-only"
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        onchange={(event) => take(event.currentTarget)}
      /></label
    >
    <p class="soft">{wholes}</p>
    {#if problem}
      <div class="fault" role="alert">
        <p>Nothing was taken over:</p>
        <ul>
          {#each problem.faults as fault, i (i)}
            <li>
              <strong>{fault.field}</strong>
              {fault.rule}
              {#if fault.value !== undefined && fault.value !== null}<span class="soft"
                  >({JSON.stringify(fault.value)})</span
                >{/if}
            </li>
          {:else}<li>{problem.message}</li>{/each}
        </ul>
      </div>
    {/if}
    {#each notes as note (note)}<p class="warn">{note}</p>{/each}
  </section>
</div>

<style>
  .files {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 10px 28px;
  }
  h3 {
    font-weight: 500;
  }
  li {
    padding-block: 3px;
  }
  a {
    color: var(--light);
    text-decoration: underline;
  }
  .pick {
    display: inline-block;
    margin-block: 6px;
  }
  .pick:focus-within {
    outline: 2px solid var(--accent);
  }
  .fault ul {
    max-height: 260px;
    overflow-y: auto;
  }
  strong {
    font-weight: 500;
  }
  .warn {
    color: var(--warn);
  }
  @media (max-width: 900px) {
    .files {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
