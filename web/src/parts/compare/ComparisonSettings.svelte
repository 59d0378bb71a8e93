<script lang="ts">
  import type { ComparisonDocument, CompareView } from '../../lib/types'
  import { COC_CHOICES, cocChoice } from '../chain/coc'
  import { ASPECTS } from '../chain/links'
  import Segments from '../controls/Segments.svelte'
  import NumberField from '../fields/NumberField.svelte'

  interface Props {
    document: ComparisonDocument
    cases: CompareView['cases']
    fault: (path: string) => string | undefined
    onchange: (part: Partial<ComparisonDocument>, kind?: string) => void
  }
  let { document, cases, fault, onchange }: Props = $props()
</script>

<div class="settings">
  <input
    class="set name"
    aria-label="Name of the comparison"
    value={document.name}
    maxlength="80"
    oninput={(event) => onchange({ name: event.currentTarget.value }, 'name')}
  />
  <Segments
    label="Case"
    options={cases.map((c) => ({ value: c.case, label: c.name }))}
    value={document.case}
    onchange={(name) => onchange({ case: name })}
  />
  <label class="no-print"
    ><span class="soft">sharp to</span>
    <select
      class="set"
      aria-label="Rule for the circle of confusion"
      value={document.coc === null ? '' : cocChoice(document.coc)}
      onchange={(event) =>
        onchange({ coc: COC_CHOICES.find((c) => c.label === event.currentTarget.value)?.coc ?? null })}
    >
      <option value="">the production's rule</option>
      {#each COC_CHOICES as { label } (label)}<option value={label}>{label}</option>{/each}
    </select></label
  >
  <label class="no-print"
    ><span class="soft">delivery</span>
    <select
      class="set figure"
      aria-label="Aspect of the delivery"
      value={String(document.delivery.aspect ?? '')}
      onchange={({ currentTarget: { value } }) =>
        onchange({ delivery: { ...document.delivery, aspect: value === '' ? null : Number(value) } })}
    >
      {#each ASPECTS as { label, aspect } (label)}<option value={String(aspect ?? '')}>{label}</option>{/each}
    </select></label
  >
  <span class="no-print"
    ><span class="soft">light</span>
    <NumberField
      label="Light, lux"
      size={5}
      value={document.lux}
      fault={fault('lux')}
      onchange={(lux) => lux !== null && onchange({ lux })}
    /> lux</span
  >
</div>

<style>
  .settings {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 0.8rem;
    align-items: center;
  }
  .name {
    font-size: 17px;
    font-weight: 600;
    field-sizing: content;
  }
</style>
