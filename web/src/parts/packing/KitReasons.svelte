<script lang="ts">
  import { count } from '../../lib/packing'
  import type { KitAnswer, KitShot } from '../../lib/types'
  import { money, thingRows, VERDICT_SIGNS } from '../../lib/packing'
  import { trade } from '../../lib/trade.svelte'
  import { weightUnit, weightWords } from '../../lib/weights'
  import type { Snippet } from 'svelte'

  interface Props {
    kit: KitAnswer
    shot: KitShot | undefined
    thing: number | null
    onthing: (place: number) => void
    /** What leads to the shot that is looked at. */
    ways?: Snippet<[KitShot]>
  }
  let { kit, shot, thing, onthing, ways }: Props = $props()

  const KINDS = [
    { kind: 'lens', title: 'Lenses' },
    { kind: 'body', title: 'Bodies' },
    { kind: 'adapter', title: 'Adapters' },
  ] as const
  const chosen = $derived(thing === null ? undefined : kit.things[thing])
  const lensOf = (each: KitShot) =>
    each.choice &&
    `${each.choice.is_zoom ? `${each.choice.lens} at ${Math.round(each.choice.focal_mm)}` : each.choice.lens} on ${each.choice.body}, ${each.choice.format}`
  const names = (places: readonly number[]) => places.map((place) => kit.things[place]?.name).join(', ')
</script>

<section class="panel" aria-label="What each is there for">
  <h2>What each is there for</h2>
  {#if shot}
    <div class="words">
      <strong>Shot {shot.name}</strong>
      <span class={VERDICT_SIGNS[shot.verdict].look}
        >{VERDICT_SIGNS[shot.verdict].sign} {VERDICT_SIGNS[shot.verdict].words}</span
      >
      {#if shot.choice}<span>{lensOf(shot)}</span>{/if}
      {#if shot.could.length}<span class="soft">or {names(shot.could)}</span>{/if}
      {#if shot.told}<span class="soft">{shot.told}</span>{/if}
      {@render ways?.(shot)}
    </div>
  {/if}
  {#if chosen}
    <div class="words">
      <strong>Without {chosen.name}</strong>
      {#if chosen.without.length}
        <ul>
          {#each chosen.without as each (each.key)}<li>
              <span class="bad">{each.name}</span>
              {each.told}
            </li>{/each}
        </ul>
      {:else}<span>every shot can be done still</span>{/if}
    </div>
  {/if}
  <table class="figures">
    {#each KINDS as { kind, title } (kind)}
      {@const rows = thingRows(kit.things).filter((each) => each.kind === kind)}
      {#if rows.length}
        <tbody>
          <tr><th scope="rowgroup" colspan="4" class="soft">{title}</th></tr>
          {#each rows as row (row.place)}
            <tr class:chosen={row.place === thing}>
              <th scope="row"
                ><button class="link" aria-pressed={row.place === thing} onclick={() => onthing(row.place)}
                  >{row.name}{row.count > 1 ? ` ×${row.count}` : ''}</button
                ></th
              >
              <td class="told" class:warn={row.used.length === 1 && kind === 'lens'}
                >{row.told}{#if row.note}<span class="soft"> · {row.note}</span>{/if}</td
              >
              <td class="figure right"
                >{row.weight_kg === null
                  ? `? ${weightUnit(trade.unit)}`
                  : weightWords(row.weight_kg, trade.unit)}</td
              >
              <td class="right soft">{row.owned ? 'owned' : money(row.cost, kit.currency)}</td>
            </tr>
          {/each}
        </tbody>
      {/if}
    {/each}
  </table>
  {#if kit.filters.length}
    <p>
      <span class="soft">Filters</span>
      {kit.filters.map((f) => `${f.name} (${count(f.shots.length, 'shot')})`).join(', ')}
    </p>
  {/if}
  <p>
    <span class="soft">At home:</span>
    {#each kit.left_out as row (`${row.kind}${row.of}${row.name}`)}<span class="add"
        >{row.name} <span class="ok">{row.adds}</span></span
      >{/each}
    {#if kit.adds_nothing}<span class="soft"
        >{count(kit.adds_nothing, 'thing')}
        {kit.left_out.length ? 'more that' : 'that'} would add nothing</span
      >{/if}
  </p>
</section>

<style>
  h2 {
    font-size: 15px;
  }
  .panel {
    font-size: 14px;
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
  }
  ul {
    flex-basis: 100%;
  }
  table {
    width: 100%;
  }
  .figures th {
    white-space: normal;
    text-align: left;
  }
  .figures .told {
    white-space: normal;
    width: 50%;
    line-height: 1.25;
  }
  .figures th {
    vertical-align: top;
  }
  .figures td:last-child {
    padding-right: 0;
  }
  .right {
    text-align: right;
  }
  th button {
    text-align: left;
  }
  .add {
    margin-right: 1rem;
  }
  .chosen {
    background: var(--cell);
  }
</style>
