<script lang="ts">
  import { distanceWithUnit, mm, percent } from '../../lib/format'
  import type { FieldAnswer, FieldAsk, Unit } from '../../lib/types'
  import RoomDrawing from '../drawings/RoomDrawing.svelte'

  interface Props {
    ask: FieldAsk
    answer: FieldAnswer
    unit: Unit
  }
  let { ask, answer, unit }: Props = $props()
  const room = $derived(ask.room ?? {})
  const first = $derived(answer.answers[0])
  /** Most answers that are told behind the first. */
  const OTHERS = 7
</script>

<div class="answer">
  <RoomDrawing {answer} {room} {unit} />
  <div class="told">
    {#if first}
      <p class="head">
        {#if ask.find === 'distance'}<strong class="figure">{distanceWithUnit(first.distance_m, unit)}</strong
          > from the sensor plane
        {:else if ask.find === 'lens'}<strong
            >{first.lens}{first.candidate?.zoom ? ` at ${mm(first.set_mm)} mm` : ''}</strong
          >{first.via ? ` with ${first.via}` : ''}
        {:else}<strong>{first.format}</strong> of {first.body}{/if}
        <span class="soft"
          >shows {distanceWithUnit(first.width_m, unit)} × {distanceWithUnit(first.height_m, unit)}; wanted {answer
            .wanted.by}
          {distanceWithUnit(answer.wanted.field_m, unit)}{first.percent !== null && ask.find !== 'distance'
            ? ` (${percent(first.percent, 1)})`
            : ''}</span
        >
      </p>
    {/if}
    {#each answer.binds as text (text)}<p class="warn">{text}</p>{/each}
    {#if answer.framings.length && first}
      <table class="figures plain">
        <caption class="soft"
          >{first.lens}{first.via ? ` with ${first.via}` : ''} in {first.format}, from the sensor plane</caption
        >
        <tbody>
          {#each answer.framings as f (f.framing)}
            <tr class:chosen={f.framing === ask.person?.framing}>
              <th scope="row">{f.framing}</th>
              <td class="n figure">{distanceWithUnit(f.distance_m, unit)}</td>
              <td class="warn">{f.binds ? `✗ ${f.binds}` : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if ask.find !== 'distance'}
      <ul>
        {#each answer.answers.slice(1, OTHERS + 1) as a (a.format_id + '.' + a.lens_id + '.' + a.focal_mm)}
          <li class:dim={a.verdict === 'short'}>
            <span class="figure">{a.percent === null ? '–' : percent(a.percent, 1)}</span>
            {a.lens}{a.candidate?.zoom ? ` at ${mm(a.set_mm)} mm` : ''}{a.via
              ? ` with ${a.via}`
              : ''}{ask.find === 'format' ? ` in ${a.format} of ${a.body}` : ''}{a.verdict === 'short'
              ? ', does not cover'
              : ''}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</div>

<style>
  strong {
    color: var(--accent);
    font-size: 17px;
  }
  .answer {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 14px;
  }
  .told {
    font-size: 14px;
  }
  table {
    margin-top: 4px;
  }
  .chosen {
    color: var(--accent);
  }
  .dim {
    color: var(--ink-soft);
  }
  @media (max-width: 900px) {
    .answer {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
