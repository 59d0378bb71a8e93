<script lang="ts">
  import type { Problem } from '../lib/types'

  interface Props {
    addresses: { json: string; csv: string; fdl: string | null; template: string }
    /** Why a file was refused, and what could not be taken over of one that was read. */
    problem: Problem | null
    notes: string[]
    onformats: (file: File) => void
  }
  let { addresses, problem, notes, onformats }: Props = $props()

  function take(input: HTMLInputElement) {
    const [file] = input.files ?? []
    if (file) onformats(file)
    input.value = ''
  }
</script>

<div class="files">
  <section>
    <h3>Out</h3>
    <ul>
      <li>
        <a href={addresses.json} download>The whole body</a>
        <span class="soft">JSON, schema hextan.body 1</span>
      </li>
      <li>
        <a href={addresses.csv} download>Its recording formats</a>
        <span class="soft">CSV, one row each</span>
      </li>
      <li>
        {#if addresses.fdl}<a href={addresses.fdl} download>Canvases and framing</a>{:else}Canvases and
          framing…{/if}
        <span class="soft"
          >ASC FDL 2.0: each recording format a canvas, the Bench's delivery and 16:9, 9:16 as framing
          intents. Rates, codecs and timing stand in keys that other programs pass over; crops, claims and
          origins are not in it.</span
        >
      </li>
    </ul>
  </section>
  <section>
    <h3>Recording formats in</h3>
    <p class="soft">
      A table with one row for each recording format (<a href={addresses.template} download>template</a>).
      Modes and formats of the same name are changed, others are added; all of it or nothing. Undo takes it
      back.
    </p>
    <label class="knob pick"
      >Choose a CSV file<input
        class="sr-only"
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        onchange={(event) => take(event.currentTarget)}
      /></label
    >
    <p class="soft">Whole bodies (JSON, ASC FDL) are read beside the list of bodies.</p>
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
