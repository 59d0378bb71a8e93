<script lang="ts">
  import { CLASSES } from '../../lib/generated/choices'
  import type { QuickBody } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import { REFERENCES, SENSOR_FIELDS, type SensorAsk } from './asks'

  interface Props {
    sensor: SensorAsk
    answer: QuickBody | null
    onset: (part: Partial<SensorAsk>) => void
  }
  let { sensor, answer, onset }: Props = $props()

  const fact = (name: string) => answer?.facts.find((f) => f.name === name)
  const fault = (name: string) => answer?.faults.find((f) => f.field === name)?.rule
  const against = (name: string) => answer?.contradictions.filter((c) => c.fields[0] === name) ?? []
  const classes = [
    { value: null, label: 'not said' },
    ...CLASSES.map((name) => ({ value: name, label: name })),
  ]
</script>

{#snippet told(name: string)}
  {@const known = fact(name)}
  {#if fault(name)}<span class="bad" id="told-{name}">{fault(name)}</span>
  {:else if known && (!known.given || !sensor[name as keyof SensorAsk])}<span class="soft" id="told-{name}"
      ><span class="figure">{known.text}</span>{known.given
        ? ', from the text'
        : known.how && `, ${known.how}`}</span
    >{/if}
  {#each against(name) as { text } (text)}<span class="warn" role="status">{text}</span>{/each}
{/snippet}

<div class="facts">
  {#each SENSOR_FIELDS as { name, label, example } (name)}
    <label for="fact-{name}">{label}</label>
    <span class="typed">
      <input
        id="fact-{name}"
        class="set figure"
        value={sensor[name]}
        placeholder={example}
        maxlength="60"
        autocomplete="off"
        spellcheck="false"
        aria-invalid={fault(name) !== undefined}
        aria-describedby="told-{name}"
        oninput={(event) => onset({ [name]: event.currentTarget.value })}
      />
      {#if name === 'crop'}
        <span class="soft">of</span>
        <Choice
          label="Crop factor against"
          options={REFERENCES}
          value={sensor.reference ?? 'full_frame'}
          onchange={(reference) => onset({ reference })}
        />
      {/if}
    </span>
    <span class="told">{@render told(name)}</span>
  {/each}
  <span>Class</span>
  <span class="typed"
    ><Choice
      label="Class of the sensor"
      options={classes}
      value={sensor.format_class ?? null}
      onchange={(format_class) => onset({ format_class })}
    /></span
  >
  <span class="told">{@render told('format_class')}</span>
</div>

<style>
  .facts {
    display: grid;
    grid-template-columns: auto auto minmax(0, 1fr);
    gap: 2px 0.9rem;
    align-items: baseline;
    font-size: 14px;
  }
  .typed {
    display: inline-flex;
    gap: 0.35rem;
    align-items: baseline;
  }
  input {
    width: 9.5rem;
  }
  #fact-pitch_um,
  #fact-megapixels,
  #fact-crop {
    width: 4rem;
  }
  .told {
    display: grid;
  }
  @media (max-width: 700px) {
    .facts {
      grid-template-columns: auto minmax(0, 1fr);
    }
    .told {
      grid-column: 1 / -1;
    }
    .told:empty {
      display: none;
    }
  }
</style>
