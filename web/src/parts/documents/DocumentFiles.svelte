<script lang="ts">
  import type { FileKind, Problem } from '../../lib/types'

  interface Props {
    /** The kinds of files that the document goes out as, or takes rows from. */
    kinds: FileKind[]
    /** Where the document is had as a file, or an empty one to fill in; null while it is not ready yet. */
    addressOf: (kind: FileKind, template: boolean) => string | null
    /** Heading of what a table brings in, and what it does. */
    heading: string
    told: string
    wholes: string
    /** Why a file was refused, and what could not be taken over of one that was read. */
    problem: Problem | null
    notes: string[]
    onrows: (kind: string, file: File) => void
  }
  let { kinds, addressOf, heading, told, wholes, problem, notes, onrows }: Props = $props()

  function take(kind: string, input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) onrows(kind, file)
    input.value = ''
  }
</script>

<div class="files">
  <section>
    <h2>Out</h2>
    <ul>
      {#each kinds as kind (kind.kind)}
        {@const href = addressOf(kind, false)}
        <li>
          {#if href}<a class="link" {href} download>{kind.title}</a>{:else}{kind.title}…{/if}
          <span class="soft">{kind.told}</span>
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h2>{heading}</h2>
    {#each kinds.filter((kind) => kind.merges) as kind (kind.kind)}
      <p class="soft">
        {#if kind.template}<a class="link" href={addressOf(kind, true)} download>A table to fill in</a>.{/if}
        {told} All of it or nothing. Undo takes it back.
      </p>
      <label class="knob pick"
        >Choose a {kind.suffix.toUpperCase()} file<input
          class="sr-only"
          type="file"
          accept=".{kind.suffix},.tsv,.txt,text/{kind.suffix}"
          onchange={(event) => take(kind.kind, event.currentTarget)}
        /></label
      >
    {/each}
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
  li {
    padding-block: 3px;
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
  @media (max-width: 900px) {
    .files {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
