<script lang="ts">
  import { ratesText } from '../../lib/format'
  import type { CatalogueChange } from '../../lib/types'

  interface Props {
    /** What was taken: a body, a lens set. */
    what?: string
    changes: CatalogueChange[] | null
    /** Whether it came from the catalogue at all. */
    linked: boolean
    onsettle: (take: string[], leave: string[]) => void
  }
  let { what = 'body', changes, linked, onsettle }: Props = $props()
  const all = $derived((changes ?? []).map((change) => change.path))

  function shown(value: unknown, field: string): string {
    if (value === null || value === undefined) return '–'
    if (field === 'rates' && Array.isArray(value)) return ratesText(value)
    if (typeof value === 'object' && 'name' in value) return String(value.name)
    if (typeof value === 'object') return JSON.stringify(value).replaceAll('"', '')
    return String(value)
  }
  const words = (field: string) => field.replace(/_us$/, ' µs').replace(/_um$/, ' µm').replaceAll('_', ' ')
  const KINDS = { changed: '', added: 'new in the catalogue', gone: 'gone from the catalogue' }
</script>

{#if !linked}
  <p class="soft">This {what} was not taken from the catalogue.</p>
{:else if changes === null}
  <p class="soft">Looking…</p>
{:else if changes.length === 0}
  <p class="soft">
    The catalogue says the same as when this {what} was taken from it, or what it changed is settled.
  </p>
{:else}
  <p class="soft">
    The catalogue was changed after this {what} was taken from it. Your copy stays as it is until you take a change;
    one that you leave is not offered again.
  </p>
  <div class="grid">
    <table>
      <thead
        ><tr
          ><th scope="col">Where</th><th scope="col">What</th><th scope="col">When taken</th><th scope="col"
            >Catalogue now</th
          ><th scope="col">Here</th><th scope="col"><span class="sr-only">Take or leave</span></th></tr
        ></thead
      >
      <tbody>
        {#each changes as change (change.path)}
          <tr>
            <td>{change.where || `the ${what}`}</td>
            <td>{words(change.field) || KINDS[change.kind]}</td>
            <td class="figure wrap">{shown(change.taken, change.field)}</td>
            <td class="figure wrap accent">{shown(change.catalogue, change.field)}</td>
            <td class="figure wrap"
              >{shown(change.here, change.field)}{#if change.touched}<span class="warn">
                  (changed here too)</span
                >{/if}</td
            >
            <td
              ><button class="knob" onclick={() => onsettle([change.path], [])}>Take</button>
              <button class="knob" onclick={() => onsettle([], [change.path])}>Leave</button></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <button class="knob" onclick={() => onsettle(all, [])}>Take all {changes.length}</button>
{/if}

<style>
  .grid {
    margin-block: 6px;
  }
  .grid td {
    padding-block: 3px;
  }
  .wrap {
    white-space: normal !important;
    max-width: 17rem;
  }
</style>
