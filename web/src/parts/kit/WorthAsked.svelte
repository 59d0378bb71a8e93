<script lang="ts">
  import Choice from '../controls/Choice.svelte'
  import Segments from '../controls/Segments.svelte'
  import type { Problem, Shot, Unit, WorthAsk } from '../../lib/types'
  import { asInList, bare, BY, CELLS, ownShot } from '../../lib/worth'
  import DistanceField from '../fields/DistanceField.svelte'
  import EntryField from '../fields/EntryField.svelte'

  interface Props {
    ask: WorthAsk
    /** The list, out of which a shot can be taken. */
    shots: readonly Shot[]
    unit: Unit
    /** Whether there is a plan. */
    planned: boolean
    hireDays: number | null
    fault: (path: string) => string | undefined
    read: (text: string, unit: Unit) => Promise<{ data?: { metres: number }; problem?: Problem }>
    onchange: (part: Partial<WorthAsk>) => void
  }
  let { ask, shots, unit, planned, hireDays, fault, read, onchange }: Props = $props()

  const listed = $derived(shots.find((shot) => shot.key === ask.shot.key))
  const same = $derived(listed ? asInList(ask.shot, listed) : false)
  const options = $derived([
    { value: '', label: listed && !same ? `${listed.name}, changed` : 'own question' },
    ...shots.map((shot) => ({
      value: shot.key,
      label: [shot.name, shot.what, shot.framing].filter(Boolean).join(' · '),
    })),
  ])
  function take(key: string) {
    const found = shots.find((shot) => shot.key === key)
    const { framing = '', distance = '', room = '', stop = '' } = ask.shot
    onchange({ shot: found ? bare(found) : ownShot({ framing, distance, room, stop }) })
  }
  /** What else the shot needs, that the page has no cell for. */
  const more = $derived(
    Object.entries(ask.shot).filter(
      ([name, value]) =>
        typeof value === 'string' &&
        value &&
        !['key', 'name', 'scene', 'what', 'day', 'unit', ...CELLS.map((cell) => cell.name)].includes(name),
    ),
  )
</script>

<section class="panel" aria-label="What is asked">
  <h2>Best for the money</h2>
  <div class="bar">
    <label class="item"
      ><span class="soft">Shot</span>
      <Choice {options} value={same && listed ? listed.key : ''} search onchange={take} /></label
    >
    {#each CELLS as cell (cell.name)}
      <span class="item"
        ><span class="soft">{cell.title}</span><EntryField
          label={cell.title}
          kind="text"
          size={cell.name === 'framing' ? 14 : cell.name === 'distance' ? 12 : 8}
          placeholder={cell.like.split(/[,;]/)[0] ?? ''}
          value={ask.shot[cell.name] ?? ''}
          fault={fault(cell.name)}
          oninput={(value) => onchange({ shot: { ...ask.shot, [cell.name]: String(value) } })}
        /></span
      >
    {/each}
  </div>
  {#if more.length}
    <p class="soft">And all else that the shot needs: {more.map(([, value]) => value).join('; ')}.</p>
  {/if}
  {#each ['body', 'height', 'keep_out', 'keep_out_by', 'deliveries', 'speed', 'hold', 'background', 'light', 'picture', 'rig', 'glass', 'nearest', 'lamps'] as name (name)}
    {#if fault(name)}<p class="fault" role="alert">{name.replace('_', ' ')}: {fault(name)}</p>{/if}
  {/each}
  <div class="bar">
    <span class="item"
      ><span class="soft">Rank by</span><Segments
        label="Rank by"
        options={BY}
        value={ask.ranked_by ?? 'blur'}
        onchange={(ranked_by) => onchange({ ranked_by })}
      /></span
    >
    <span class="item"
      ><span class="soft">Background</span><Segments
        label="Background"
        options={[
          { value: 'soft', label: 'soft' },
          { value: 'deep', label: 'sharp' },
        ]}
        value={ask.look ?? 'soft'}
        onchange={(look) => onchange({ look })}
      /></span
    >
    <span class="item"
      ><label class="item"
        ><input
          type="checkbox"
          checked={ask.behind_m == null}
          onchange={(event) => onchange({ behind_m: event.currentTarget.checked ? null : 5 })}
        /> far away</label
      >
      {#if ask.behind_m != null}<DistanceField
          label="How far behind the subject"
          metres={ask.behind_m}
          {unit}
          {read}
          onchange={(behind_m) => onchange({ behind_m })}
        /><span class="soft">behind the subject</span>{/if}</span
    >
    <span class="item"
      ><Segments
        label="Pay for"
        options={[
          {
            value: 'hire',
            label: hireDays ? `hire for ${hireDays} ${hireDays === 1 ? 'day' : 'days'}` : 'hire',
          },
          { value: 'buy', label: 'buy' },
        ]}
        value={ask.pay ?? 'hire'}
        onchange={(pay) => onchange({ pay })}
      /></span
    >
    {#if planned}<label class="item"
        ><input
          type="checkbox"
          checked={ask.planned ?? true}
          onchange={(event) => onchange({ planned: event.currentTarget.checked })}
        /> what the plan carries costs nothing more</label
      >{/if}
    <label class="item"
      ><input
        type="checkbox"
        checked={ask.catalogue ?? false}
        onchange={(event) => onchange({ catalogue: event.currentTarget.checked })}
      /> the catalogue as well</label
    >
  </div>
</section>

<style>
  h2 {
    font-size: 15px;
  }
  .bar,
  .item {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.4rem;
    font-size: 14px;
  }
  .bar {
    display: flex;
    gap: 0.3rem 1.3rem;
    margin-block: 4px;
  }
</style>
