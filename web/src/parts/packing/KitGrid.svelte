<script lang="ts">
  import { thingRows, VERDICT_SIGNS } from '../../lib/packing'
  import { printing } from '../../lib/printing.svelte'
  import type { KitAnswer } from '../../lib/types'

  interface Props {
    kit: KitAnswer
    /** The shot and the thing that are looked at, by key and by place. */
    shot: string | undefined
    thing: number | null
    onshot: (key: string) => void
    onthing: (place: number) => void
  }
  let { kit, shot, thing, onshot, onthing }: Props = $props()

  const rows = $derived(thingRows(kit.things))
  const shots = $derived(kit.shots.filter((each) => each.verdict !== 'open'))
  /** On paper so many shots stand beside one another, and the rest below; on the screen all of them. */
  const PRINTED = 34
  const across = $derived(printing.current ? PRINTED : Math.max(shots.length, 1))
  const parts = $derived(
    Array.from({ length: Math.max(1, Math.ceil(shots.length / across)) }, (_, i) => i * across),
  )
  /** Whether a day begins with this shot. */
  const begins = (i: number) => {
    const [before, now] = [shots[i - 1], shots[i]]
    return before !== undefined && now !== undefined && (before.day !== now.day || before.unit !== now.unit)
  }
  const markOf = (place: number, each: (typeof shots)[number]) =>
    each.things.includes(place) ? 'made' : each.could.includes(place) ? 'could' : ''
  const WORDS = { made: 'made with it', could: 'could be', '': '' } as const
</script>

<div class="grid-of-kit wide" role="region" aria-label="Shots and what they are made with">
  {#each parts as start (start)}
    <table>
      <caption class="soft"
        >Shots in the order of the list; filled: made with it, hollow: could be as well</caption
      >
      <thead>
        <tr>
          <td></td>
          {#each shots.slice(start, start + across) as each, n (each.key)}
            {@const i = start + n}
            <th scope="col" class:begins={begins(i)} class:chosen={each.key === shot}>
              <button
                class={VERDICT_SIGNS[each.verdict].look}
                aria-pressed={each.key === shot}
                title="{each.name}, {each.day ? `day ${each.day}` : ''} {each.unit}: {VERDICT_SIGNS[
                  each.verdict
                ].words}"
                onclick={() => onshot(each.key)}
                ><span
                  >{each.verdict === 'does' ? '' : `${VERDICT_SIGNS[each.verdict].sign} `}{each.name}</span
                ></button
              >
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each rows as row, r (row.place)}
          <tr class:chosen={row.place === thing} class:first={r > 0 && rows[r - 1]?.kind !== row.kind}>
            <th scope="row">
              <button aria-pressed={row.place === thing} onclick={() => onthing(row.place)}
                >{row.name}{row.count > 1 ? ` ×${row.count}` : ''}</button
              >
            </th>
            {#each shots.slice(start, start + across) as each, n (each.key)}
              {@const i = start + n}
              {@const mark = markOf(row.place, each)}
              <td class:begins={begins(i)} class:chosen={each.key === shot}
                >{#if mark}<span class={mark}><span class="sr-only">{WORDS[mark]}</span></span>{/if}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  {/each}
</div>

<style>
  table {
    border-collapse: separate;
    border-spacing: 0;
    font-size: 13px;
  }
  caption {
    text-align: left;
    padding-bottom: 2px;
    white-space: nowrap;
  }
  th {
    font-weight: 400;
  }
  thead th {
    height: 54px;
    vertical-align: bottom;
    padding: 0;
  }
  thead button {
    display: block;
    width: 20px;
    height: 54px;
    position: relative;
  }
  thead span {
    position: absolute;
    left: 9px;
    bottom: 2px;
    transform-origin: 0 100%;
    transform: rotate(-60deg) translate(2px, 4px);
    white-space: nowrap;
    font-size: 12px;
  }
  th[scope='row'],
  thead td {
    position: sticky;
    left: 0;
    z-index: 1;
    background: var(--panel);
  }
  th[scope='row'] {
    text-align: left;
    padding: 0 8px 0 0;
    white-space: nowrap;
    border-bottom: 1px solid var(--line);
  }
  th[scope='row'] button {
    min-height: 24px;
    text-align: left;
  }
  tbody td {
    width: 20px;
    min-width: 20px;
    height: 24px;
    padding: 0;
    border-bottom: 1px solid var(--line);
    text-align: center;
    line-height: 0;
  }
  .begins {
    border-left: 1px solid var(--line-strong);
  }
  .first > :is(th, td) {
    border-top: 1px solid var(--line-strong);
  }
  .chosen:is(td, th),
  .chosen > :is(td, th) {
    background: var(--cell);
  }
  .chosen > th button,
  th.chosen button {
    color: var(--accent);
  }
  /* Borders: they are drawn in forced colours and on paper, too. */
  .made,
  .could {
    display: inline-block;
    width: 14px;
    height: 14px;
    position: relative;
  }
  .made {
    border: 7px solid var(--accent);
  }
  .could {
    border: 1.5px solid var(--light);
    width: 12px;
    height: 12px;
  }
  @media (pointer: coarse) {
    tbody td,
    thead button {
      width: 28px;
      min-width: 28px;
    }
    tbody td,
    th[scope='row'] button {
      height: 36px;
    }
  }
  @media print {
    th[scope='row'],
    thead td {
      position: static;
    }
  }
</style>
