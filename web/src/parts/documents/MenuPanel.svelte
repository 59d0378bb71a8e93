<script lang="ts">
  import type { BodyDocument } from '../../lib/types'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    document: BodyDocument
    fault: (path: string) => string | undefined
    onset: (path: string, value: unknown) => void
  }
  let { document, fault, onset }: Props = $props()

  const FIELDS = [
    { key: 'name', title: 'is called' },
    { key: 'where', title: 'under' },
    { key: 'overridden_by', title: 'is overridden by' },
    { key: 'finder', title: 'the finder shows' },
    { key: 'knocked', title: 'is knocked on by' },
  ] as const
  const rows = $derived([
    ...document.modes.map((row, i) => ({ row, at: `modes[${i}].menu`, kind: 'Scan mode' })),
    ...document.crops.map((row, i) => ({ row, at: `crops[${i}].menu`, kind: 'Switch' })),
  ])
</script>

<p class="soft">
  What the camera’s own menu says, so that whoever stands at it finds the mode that is meant. An automatic
  setting that wins over a switch belongs under “is overridden by”.
</p>
{#if rows.length}
  <div class="row titles" aria-hidden="true">
    <span></span>
    {#each FIELDS as field (field.key)}<span class="soft">{field.title}</span>{/each}
  </div>
{/if}
{#each rows as { row, at, kind } (row.key)}
  <section class="row" aria-label={row.name}>
    <h3>{row.name} <span class="soft">{kind}</span></h3>
    {#each FIELDS as field (field.key)}
      <span
        ><span class="soft narrow">{field.title}</span><EntryField
          label="{row.name} {field.title}"
          kind="text"
          size={18}
          placeholder="–"
          value={row.menu?.[field.key] ?? ''}
          fault={fault(`${at}.${field.key}`)}
          oninput={(value) => onset(at, { ...row.menu, [field.key]: value })}
        /></span
      >
    {/each}
  </section>
{:else}
  <p class="soft">No scan mode and no switch yet.</p>
{/each}

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(9rem, 15rem) repeat(5, minmax(0, 1fr));
    align-items: center;
    gap: 0 1rem;
    min-height: 30px;
    border-bottom: 1px solid var(--line);
  }
  .row :global(input) {
    width: 100% !important;
  }
  h3 {
    font-size: 14px;
    font-weight: 500;
  }
  h3 .soft,
  .titles {
    font-size: 13px;
    font-weight: 400;
  }
  .narrow {
    display: none;
  }
  @media (max-width: 900px) {
    .titles {
      display: none;
    }
    .row {
      grid-template-columns: minmax(0, 1fr);
      padding-block: 4px;
    }
    .row > span {
      display: grid;
      grid-template-columns: 8.5rem minmax(0, 1fr);
      align-items: center;
    }
    .narrow {
      display: inline;
    }
  }
</style>
