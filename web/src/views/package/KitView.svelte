<script lang="ts">
  import Choice from '../../parts/controls/Choice.svelte'
  import type { SectionProps } from '../../lib/views'
  import * as client from '../../lib/client'
  import { pathTo } from '../../lib/router.svelte'
  import { toQuery } from '../../lib/address'
  import { asOnBench, KitLook } from '../../lib/kit.svelte'
  import type { KitMatrix, MatrixAsk } from '../../lib/types'
  import KitMatrixTable from '../../parts/kit/KitMatrixTable.svelte'
  import KitSettings from '../../parts/kit/KitSettings.svelte'
  import NoticeBar from '../../parts/page/NoticeBar.svelte'

  let { productionId }: SectionProps = $props()

  // The view is made anew for another production.
  // svelte-ignore state_referenced_locally
  const look = new KitLook<MatrixAsk, KitMatrix>(
    productionId,
    (bench) => ({ ...asOnBench(bench), planned: true, across: 'pictures', mounted: 'simplest' }),
    (ask, signal) => client.readMatrix(productionId, ask, signal),
  )
  let copied = $state('')

  async function copy() {
    if (!look.ask) return
    const { data, problem } = await client.matrixTable(productionId, look.ask)
    if (!data) {
      look.problem = problem ?? null
      return
    }
    try {
      await navigator.clipboard.writeText(data)
      copied = 'Copied.'
    } catch {
      // Without leave for the clipboard the table comes as a file.
      const link = document.createElement('a')
      link.href = URL.createObjectURL(new Blob([data], { type: 'text/csv' }))
      link.download = 'kit.csv'
      link.click()
      URL.revokeObjectURL(link.href)
      copied = 'Saved as kit.csv.'
    }
  }
  const hrefOf = (lensId: number, formatId: number, adapterIds: number[]) =>
    look.bench
      ? `${pathTo(productionId, 'bench')}?${toQuery({
          ...look.bench,
          lens_id: lensId,
          format_id: formatId,
          adapter_id: adapterIds[0] ?? null,
          second_adapter_id: adapterIds[1] ?? null,
          focal_mm: null,
          stop: null,
        })}`
      : pathTo(productionId, 'bench')

  const COLUMNS = [
    { value: 'pictures', label: 'recording formats, those with the same picture together' },
    { value: 'formats', label: 'every recording format' },
    { value: 'classes', label: 'classes of formats' },
  ] as const
</script>

<NoticeBar what="package" problem={look.problem} onresolve={() => {}} onundo={null} />
{#if look.ask && look.equipment}
  <KitSettings
    ask={look.ask}
    package={look.equipment}
    planned={look.ask.planned ?? false}
    onchange={(part) => look.change(part)}
  />
  <div class="bar">
    <label
      ><span class="soft">Across</span>
      <Choice
        label="Columns of the matrix"
        options={COLUMNS}
        value={look.ask.across}
        onchange={(across) => look.change({ across })}
      /></label
    >
    <span class="soft"
      >Effective focal length in mm, horizontal angle; ✓ covers, ≈ just covers, ✗ dark corners, ? circle not
      stated, – does not mount.</span
    >
    <button class="knob" onclick={() => void copy()}>Copy as CSV</button>
    <span role="status" class="soft">{copied}</span>
  </div>
  {#if look.answer}<KitMatrixTable matrix={look.answer} {hrefOf} />{/if}
{/if}
