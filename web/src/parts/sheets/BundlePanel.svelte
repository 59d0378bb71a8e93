<script lang="ts">
  import type { Snippet } from 'svelte'
  import { pathTo } from '../../lib/router.svelte'
  import { SHEET_KINDS } from '../../lib/generated/choices'
  import { STARTERS, titleOf, type SheetKind } from '../../lib/sheets'
  import type { SheetStates } from '../../lib/sheets.svelte'
  import type { Bundle, SheetPlan } from '../../lib/types'
  import Choice from '../controls/Choice.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    id: number
    bundles: readonly Bundle[]
    bundle: Bundle | undefined
    /** The sheet that is shown. */
    plan: SheetPlan | undefined
    states: SheetStates
    /** Whether the list stands beside the sheet, and not over it. */
    roomy: boolean
    /** Whether something is being printed. */
    busy: boolean
    /** Whether it is saved. */
    saved: Snippet
    onpick: (key: string) => void
    onbegin: (name: string, sheets: SheetPlan[]) => void
    onput: (part: Partial<Bundle>, kind: string) => void
    ondelete: () => void
    onadd: (kind: SheetKind) => void
    onprint: (sheets: SheetPlan[]) => void
  }
  let {
    id,
    bundles,
    bundle,
    plan,
    states,
    roomy,
    busy,
    saved,
    onpick,
    onbegin,
    onput,
    ondelete,
    onadd,
    onprint,
  }: Props = $props()

  const old = $derived(
    bundle?.sheets.filter((sheet) => sheet.made && states.of(sheet).words.includes('changed')) ?? [],
  )
  const total = $derived(bundle?.sheets.reduce((sum, sheet) => sum + (states.pages(sheet) ?? 0), 0) ?? 0)
</script>

<aside class="no-print" aria-label="Sheets of the bundle">
  <details open={roomy}>
    <summary>{bundle?.name}: {bundle?.sheets.length ?? 0} sheets</summary>
    <div class="within">
      <div class="row">
        <Choice
          label="Bundle"
          options={bundles.map((each) => ({ value: each.key, label: each.name }))}
          value={bundle?.key}
          onchange={(key) => onpick(bundles.find((each) => each.key === key)?.sheets[0]?.key ?? String(key))}
        />
        <Choice
          label="New bundle"
          options={STARTERS.map((starter) => ({ value: starter.name, label: starter.name }))}
          value={null}
          placeholder="New bundle …"
          onchange={(name) => {
            const starter = STARTERS.find((each) => each.name === name)
            if (starter) onbegin(starter.name, starter.sheets())
          }}
        />
      </div>
      {#if bundle}
        <div class="row">
          <EntryField
            label="Name of the bundle"
            kind="text"
            size={18}
            value={bundle.name}
            fault={bundle.name ? undefined : 'needs a name'}
            oninput={(name) => onput({ name: String(name) }, `${bundle.key}.name`)}
          />
          <button class="knob small" onclick={ondelete}>Delete bundle</button>
          {@render saved()}
        </div>
        <ol class="sheets">
          {#each bundle.sheets as sheet (sheet.key)}
            {@const told = states.of(sheet)}
            <li>
              <a
                href="{pathTo(id, 'sheets')}/{sheet.key}"
                class:chosen={sheet === plan}
                aria-current={sheet === plan ? 'true' : undefined}
              >
                <span>{titleOf(sheet)}</span>
                <span class="figure">{states.pages(sheet) ?? ''}</span>
                <span class={told.tone}>{told.words}</span>
              </a>
            </li>
          {/each}
        </ol>
        <div class="row">
          <Choice
            label="Add a sheet"
            options={SHEET_KINDS.map((kind) => ({ value: kind.kind, label: kind.title }))}
            value={null}
            placeholder="Add a sheet …"
            onchange={(kind) => kind && onadd(kind as SheetKind)}
          />
        </div>
        <p class="soft">
          {total} pages in {bundle.sheets.length === 1 ? 'one sheet' : `${bundle.sheets.length} sheets`}.
          {#if old.length}<span class="warn"
              >{old.length === 1 ? 'One is' : `${old.length} are`} older than the plan.</span
            >{/if}
        </p>
        <p><a class="link" href="{pathTo(id, 'sheets')}/files">Files for other programs</a></p>
        <div class="row">
          <button class="knob" disabled={busy || !bundle.sheets.length} onclick={() => onprint(bundle.sheets)}
            >Bundle as PDF</button
          >
          {#if old.length}<button class="knob" disabled={busy} onclick={() => onprint(old)}
              >Make {old.length === 1 ? 'it' : 'them'} anew</button
            >{/if}
        </div>
      {/if}
    </div>
  </details>
</aside>

<style>
  @media (min-width: 700px) {
    summary {
      display: none;
    }
  }
  .within {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  .sheets {
    display: grid;
    border-top: 1px solid var(--line);
  }
  .sheets a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 32px 104px;
    gap: 8px;
    padding: 5px 8px;
    color: inherit;
    text-decoration: none;
    border-bottom: 1px solid var(--line);
  }
  .sheets .figure {
    text-align: right;
  }
  .chosen {
    background: var(--cell-strong);
  }
  @media (pointer: coarse) {
    .sheets a {
      min-height: 44px;
      align-items: center;
    }
  }
</style>
