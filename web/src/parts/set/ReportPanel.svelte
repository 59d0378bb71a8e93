<script lang="ts">
  import { minutes } from '../../lib/format'
  import type { DayReport } from '../../lib/types'

  interface Props {
    report: DayReport
  }
  let { report }: Props = $props()
  const { cameras, faults, clips } = $derived(report)
  /** Whether the minutes that are shown of a camera's cards come to those that are shown of all. */
  const addsUp = (camera: DayReport['cameras'][number]) => {
    const shown = camera.cards.reduce((sum, card) => sum + Number(minutes(card.minutes)), 0)
    return minutes(shown) === minutes(camera.minutes)
  }
</script>

<section class="panel" aria-label="What differed">
  <h2>What differed from the plan</h2>
  {#if faults.length}
    <ul class="faults">
      {#each faults as fault, i (i)}
        <li class={fault.loud ? 'bad' : ''}>
          {#if fault.unit}<strong>{fault.unit}</strong>{/if}
          {fault.told}
        </li>
      {/each}
    </ul>
  {:else}<p class={report.nothing_told === 'Nothing.' ? 'ok' : 'soft'}>{report.nothing_told}</p>{/if}
</section>

{#if cameras.length}
  <section class="panel" aria-label="Cameras and cards">
    <h2>Cameras and cards</h2>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="wide" role="group" tabindex="0" aria-label="Cameras and cards, a table">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">camera</th>
            <th scope="col">takes</th>
            <th scope="col">circled</th>
            <th scope="col">shots</th>
            <th scope="col">lens changes</th>
            <th scope="col">card</th>
            <th scope="col">on it</th>
            <th scope="col">min</th>
            <th scope="col">GB</th>
          </tr>
        </thead>
        <tbody>
          {#each cameras as camera (camera.unit)}
            {#each camera.cards as card, i (card.card)}
              <tr>
                {#if i}<td></td>{:else}<th scope="row">{camera.unit}</th>{/if}
                <td class="figure">{i ? '' : camera.takes}</td>
                <td class="figure">{i ? '' : camera.circled}</td>
                <td class="figure">{i ? '' : camera.shots}</td>
                <td class="figure" title={camera.lenses.join(', ')}>{i ? '' : camera.lens_changes}</td>
                <td>{card.card || 'not noted'}</td>
                <td class="figure">{card.takes}</td>
                <td class="figure">{minutes(card.minutes)}</td>
                <td class="figure">{card.gb === null ? '–' : card.gb.toFixed(0)}</td>
              </tr>
            {/each}
            {#if camera.cards.length > 1}
              <tr>
                <td></td>
                <td colspan="6" class="soft"
                  >{camera.unit} in all{addsUp(camera) ? '' : ', added up before rounding'}</td
                >
                <td class="figure">{minutes(camera.minutes)}</td>
                <td></td>
              </tr>
            {/if}
          {/each}
        </tbody>
      </table>
    </div>
  </section>
{/if}

{#if clips.clips.length}
  <section class="panel" aria-label="Clips">
    <h2>{clips.clips.length} clips and stills</h2>
    <p class={clips.not_planned ? 'bad' : clips.unknown ? 'warn' : 'ok'}>{clips.told}</p>
    {#each clips.runs as run (run.unit + run.told)}<p>
        {#if run.unit}<strong>{run.unit}</strong>{/if}
        {run.told}
      </p>{/each}
  </section>
{/if}
{#if report.not_shot.length}<p>Not shot: {report.not_shot.join(', ')}.</p>{/if}
{#each report.corrected as line (line)}<p class="soft">{line}</p>{/each}

<style>
  h2 {
    font-size: 18px;
  }
  .faults {
    display: grid;
    gap: 4px;
  }
</style>
