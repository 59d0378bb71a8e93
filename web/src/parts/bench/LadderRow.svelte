<script lang="ts">
  import { COLUMNS, watchOut, type Column } from '../../lib/columns'
  import type { depthScale } from '../../lib/ladder'
  import { narrow } from '../../lib/narrow.svelte'
  import type { FormatPlace, LadderRow, Step, Unit } from '../../lib/types'
  import { rate } from '../../lib/format'
  import RateText from '../fields/RateText.svelte'
  import DerivationTable from './DerivationTable.svelte'

  interface Props {
    row: LadderRow
    place: FormatPlace
    columns: readonly Column[]
    /** Where a distance stands among those of all rows. */
    scale: ReturnType<typeof depthScale>
    unit: Unit
    chosen: boolean
    pinned: boolean
    /** Out of sight, and not laid out. */
    away: boolean
    /** How it is computed, where that is open. */
    derivation: Step[] | null
    onchoose: () => void
    onpin: () => void
    onderive: () => void
  }
  let {
    row,
    place,
    columns,
    scale,
    unit,
    chosen,
    pinned,
    away,
    derivation,
    onchoose,
    onpin,
    onderive,
  }: Props = $props()
  const notes = $derived(watchOut(row))
  /** On a telephone a row is two lines of what decides, whatever columns are chosen. */
  const say = (key: string) => COLUMNS.find((column) => column.key === key)?.text(row, place, unit) ?? ''
</script>

<tr
  data-format={row.format_id}
  class:chosen
  hidden={away}
  aria-selected={chosen}
  tabindex={chosen ? 0 : -1}
  onclick={onchoose}
>
  <td class="pin">
    <button
      class:pinned
      aria-pressed={pinned}
      aria-label="Pin {place.format.name}"
      title={pinned ? 'Pinned: drawn in the plan view' : 'Pin: draw it in the plan view'}
      onclick={(event) => {
        event.stopPropagation()
        onpin()
      }}>{pinned ? '◆' : '◇'}</button
    >
  </td>
  <th scope="row" class="name">
    <button
      class="derive"
      aria-expanded={derivation !== null}
      aria-label="How {place.format.name} is computed"
      title="How it is computed"
      onclick={(event) => {
        event.stopPropagation()
        onderive()
      }}>{derivation ? '▾' : '▸'}</button
    >
    {place.format.name}
    {#if narrow.current}<span class="second soft"
        >{place.body.name} · <span class="figure">{say('effective')}</span>{row.rate.usable_fps === null
          ? ''
          : ` · ${rate(row.rate.usable_fps)} fps`}</span
      >{:else}<span class="soft body">{place.body.name}</span>{/if}
  </th>
  {#if narrow.current}
    <td class="told">
      <span class="figure">{say('near')} – {say('far')}</span>
      <span class={row.mounts ? row.verdict : 'short'}>{say('circle')}</span>
      {#each notes as note, index (index)}<span class={note.level}>{note.text}</span>{/each}
    </td>
  {:else}
    {#each columns as column (column.key)}
      {#if column.key === 'depth'}
        <td class="depth">
          <span class="beam" aria-hidden="true"
            ><span
              style:left="{scale.share(row.answer.depth.near_m)}%"
              style:width="{scale.share(row.answer.depth.far_m) - scale.share(row.answer.depth.near_m)}%"
            ></span><i style:left="{scale.share(row.answer.subject_distance_m)}%"></i></span
          ><span class="figure">{column.text(row, place, unit)}</span>
        </td>
      {:else if column.key === 'circle'}
        <td class={row.mounts ? row.verdict : 'short'}>{column.text(row, place, unit)}</td>
      {:else if column.key === 'rate'}
        <td class="figure rate"><RateText text={column.text(row, place, unit)} /></td>
      {:else}
        <td class:figure={column.figure} class:number={column.figure}>{column.text(row, place, unit)}</td>
      {/if}
    {/each}
    <td class="watch" title={notes.map((note) => note.text).join(', ')}
      >{#each notes as note, index (index)}{index ? ', ' : ''}<span class={note.level}>{note.text}</span
        >{/each}</td
    >
  {/if}
</tr>
{#if derivation}
  <tr class="derived" hidden={away}>
    <td colspan={narrow.current ? 3 : columns.length + 3}>
      <DerivationTable steps={derivation} notes={row.answer.notes} />
    </td>
  </tr>
{/if}

<style>
  .pin button,
  .derive {
    min-width: 24px;
    min-height: 24px;
    color: var(--ink-soft);
    cursor: pointer;
  }
  .pinned {
    color: var(--accent) !important;
  }
  .body {
    font-size: 13px;
    margin-left: 0.3rem;
  }
  .depth {
    min-width: 130px;
  }
  .rate {
    max-width: 128px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .beam {
    display: inline-block;
    position: relative;
    width: 58px;
    height: 9px;
    margin-right: 7px;
    border-inline: 1px solid var(--line-strong);
  }
  .beam span {
    position: absolute;
    inset-block: 0;
    min-width: 2px;
    background: var(--accent);
    border-radius: 1px;
  }
  .depth .figure {
    display: inline-block;
    min-width: 62px;
    text-align: right;
  }
  .beam i {
    position: absolute;
    inset-block: -2px;
    width: 1px;
    background: var(--ink);
  }
  .watch {
    max-width: 178px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .stop {
    color: var(--bad);
  }
  .info,
  .unknown {
    color: var(--ink-soft);
  }
  .second {
    display: block;
    font-size: 13px;
  }
  .told {
    width: 1%;
    text-align: right;
  }
  .told span {
    display: block;
  }
  .told .figure ~ span ~ span {
    white-space: normal;
  }
  @media (max-width: 560px) {
    .pin button,
    .derive {
      min-width: 44px;
      min-height: 44px;
    }
    .derive {
      float: left;
    }
  }
</style>
