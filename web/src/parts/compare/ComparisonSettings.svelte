<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import type { ComparisonDocument, CompareView } from '../../lib/types'
  import { cocChoice, cocOf, cocOptions } from '../chain/coc'
  import { aspectOptions } from '../chain/links'
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
    <Choice
      label="Rule for the circle of confusion"
      options={cocOptions(document.coc)}
      value={document.coc === null ? null : cocChoice(document.coc)}
      onchange={(label) => onchange({ coc: cocOf(label) })}
    /></label
  >
  <label class="no-print"
    ><span class="soft">delivery</span>
    <Choice
      label="Aspect of the delivery"
      figure
      options={aspectOptions(document.delivery.aspect)}
      value={document.delivery.aspect ?? null}
      onchange={(aspect) => onchange({ delivery: { ...document.delivery, aspect } })}
    /></label
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
    font-weight: 500;
    field-sizing: content;
  }
</style>
