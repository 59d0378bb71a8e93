<script lang="ts">
  import type { Note, Step } from '../../lib/types'

  interface Props {
    steps: Step[]
    notes: Note[]
  }
  let { steps, notes }: Props = $props()
  const WORDS = { stop: 'Stop', warn: 'Mind', info: 'Note' }
</script>

<div class="derivation">
  {#if notes.length}
    <ul>
      {#each notes as note (note.code + note.text)}
        <li class={note.level}><strong>{WORDS[note.level]}:</strong> {note.text}</li>
      {/each}
    </ul>
  {/if}
  <table class="figures plain">
    <thead>
      <tr
        ><th scope="col">Link</th><th scope="col">What</th><th scope="col">Formula</th><th scope="col"
          >With the numbers</th
        ><th scope="col" class="result">Result</th></tr
      >
    </thead>
    <tbody>
      {#each steps as step, index (index)}
        <tr>
          <td class="soft">{step.link}</td>
          <td>{step.what}</td>
          <td class="figure">{step.formula}</td>
          <td class="figure">{step.numbers}</td>
          <td class="figure result">{step.result}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .derivation {
    padding: 6px 12px 12px 36px;
    background: var(--panel);
    font-size: 13.5px;
    overflow-x: auto;
  }
  ul {
    margin-bottom: 6px;
  }
  .stop {
    color: var(--bad);
  }
  th,
  td {
    padding: 1px 14px 1px 0;
    text-align: left;
    vertical-align: baseline;
    font-size: 13.5px;
  }
  th {
    font-weight: 500;
    color: var(--ink-soft);
  }
  .figure {
    font-size: 12.5px;
  }
  .result {
    white-space: nowrap;
    text-align: right;
    color: var(--accent);
  }
</style>
