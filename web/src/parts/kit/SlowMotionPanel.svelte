<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import { formatOptions } from '../../lib/options'
  import { mm, percent } from '../../lib/format'
  import type { Package, SlowAsk, SlowMotion } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    ask: SlowAsk
    answer: SlowMotion | null
    package: Package
    fault: (path: string) => string | undefined
    onchange: (part: Partial<SlowAsk>) => void
  }
  let { ask, answer, package: equipment, fault, onchange }: Props = $props()
  let open = $state<number | null>(null)
</script>

<section class="panel" aria-label="Slow motion">
  <h2>Slow motion: does the kit keep the field?</h2>
  <div class="bar">
    <label
      ><span class="soft">The field of</span>
      <Choice
        label="Base format"
        search
        options={formatOptions(equipment.bodies)}
        value={ask.base_format_id}
        onchange={(base_format_id) => onchange({ base_format_id })}
      /></label
    >
    <label
      ><span class="soft">at</span><EntryField
        label="Rate of the slow motion"
        kind="number"
        size={5}
        value={ask.fps}
        fault={fault('fps')}
        oninput={(value) => onchange({ fps: value as number })}
      />fps</label
    >
  </div>
  {#if answer}
    <p class="words">{answer.words.join(' ')}</p>
    <div class="grid">
      <table>
        <caption class="sr-only">Fast recording formats and the lenses that keep the field there</caption>
        <thead>
          <tr>
            <th scope="col">Recording format</th>
            <th scope="col" class="number">Up to</th>
            <th scope="col" class="number">Fields kept</th>
            <th scope="col" class="number">Widest that covers</th>
            <th scope="col">What is missing</th>
          </tr>
        </thead>
        <tbody>
          {#each answer.rows as row (row.format_id)}
            <tr
              class:chosen={open === row.format_id}
              onclick={() => (open = open === row.format_id ? null : row.format_id)}
            >
              <th scope="row"
                ><button class="pick" aria-expanded={open === row.format_id}
                  >{row.names[0]}{row.names.length > 1 ? ` +${row.names.length - 1}` : ''}</button
                > <span class="soft">{row.body}</span></th
              >
              <td class="number figure">{row.rate_text} fps{row.faster ? `; ${row.faster}` : ''}</td>
              <td class="number figure">{row.kept} of {row.lines.length}</td>
              <td class="number figure">{row.widest_mm === null ? '–' : `${mm(row.widest_mm)} mm`}</td>
              <td class="text" class:ok={row.text === null}>{row.text ?? '✓ wide enough'}</td>
            </tr>
            {#if open === row.format_id}
              <tr
                ><td colspan="5" class="more">
                  {#each row.lines as line (line.lens)}
                    <span class:ok={line.nearest?.same} class:warn={!line.nearest?.same}
                      >{line.lens}: {mm(line.needed_mm)} mm needed, {line.nearest
                        ? `${line.nearest.lens}${line.nearest.zoom ? ` at ${mm(line.nearest.set_mm)}` : ''}${line.nearest.via ? ` with ${line.nearest.via}` : ''} ${line.nearest.same ? '✓' : percent(line.nearest.size_percent, 1)}`
                        : 'nothing covers'}.</span
                    >
                  {/each}
                </td></tr
              >
            {/if}
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  label {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
  }
  tbody tr {
    cursor: pointer;
  }
  .more {
    white-space: normal !important;
    background: var(--cell);
  }
  .more span {
    display: inline-block;
    margin-right: 1.2rem;
  }
  .warn,
  td.text:not(.ok) {
    color: var(--warn);
  }
</style>
