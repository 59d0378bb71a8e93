<script lang="ts">
  import { mm } from '../../lib/format'
  import { printing } from '../../lib/printing.svelte'
  import { VERDICTS } from '../../lib/shotList'
  import type { FinderView, ListedAnswer, Shot } from '../../lib/types'
  import FinderDrawing from '../drawings/FinderDrawing.svelte'
  import { lensWords } from './shotColumns'

  interface Props {
    shots: readonly Shot[]
    answers: ReadonlyMap<string, ListedAnswer>
    /** By the key of the shot; nothing while it is drawn, or where no image is formed. */
    pictures: ReadonlyMap<string, FinderView>
    chosen: string | undefined
    onchoose: (key: string) => void
    /** Told which shots are in sight, or nearly: their pictures are wanted. */
    onsight: (shots: readonly Shot[]) => void
  }
  let { shots, answers, pictures, chosen, onchoose, onsight }: Props = $props()

  /** Width of a shot with the gap after it, pixels. */
  const ITEM_PX = 158
  /** Shots that are drawn beyond the view on either side. */
  const MARGIN = 4
  /** Up to so many are all drawn, and so many are printed: as many as a question for pictures may name. */
  const ALL = 60

  let list = $state<HTMLElement>()
  let left = $state(0)
  let wide = $state(1280)
  const near = $derived(
    printing.current
      ? [0, ALL]
      : [Math.max(0, Math.floor(left / ITEM_PX) - MARGIN), Math.ceil((left + wide) / ITEM_PX) + MARGIN],
  )
  $effect(() => onsight(shots.slice(...near)))
  const [from, to] = $derived(shots.length <= ALL ? [0, shots.length] : [near[0] ?? 0, near[1] ?? ALL])

  // What is chosen elsewhere comes into sight.
  const place = $derived(shots.findIndex((shot) => shot.key === chosen))
  $effect(() => {
    if (!list || place < 0) return
    const [start, end] = [place * ITEM_PX, (place + 1) * ITEM_PX]
    if (start < list.scrollLeft) list.scrollLeft = start
    else if (end > list.scrollLeft + list.clientWidth) list.scrollLeft = end - list.clientWidth
  })
</script>

<ul
  bind:this={list}
  bind:clientWidth={wide}
  onscroll={() => (left = list?.scrollLeft ?? 0)}
  aria-label="Finder pictures in order"
  style:--before="{from * ITEM_PX}px"
  style:--after="{Math.max(0, shots.length - to) * ITEM_PX}px"
>
  {#each shots.slice(from, to) as shot (shot.key)}
    {@const answer = answers.get(shot.key)}
    {@const view = pictures.get(shot.key)}
    {@const verdict = answer && VERDICTS[answer.verdict]}
    <li data-shot={shot.key}>
      <button
        aria-pressed={shot.key === chosen}
        aria-label="Shot {shot.name}, {verdict?.words ?? ''}"
        onclick={() => onchoose(shot.key)}
      >
        <span class="frame">
          {#if view}<FinderDrawing {view} compact />{:else}<span class="none soft"
              >{answer?.verdict === 'open' ? 'open' : answer ? '' : '…'}</span
            >{/if}
        </span>
        <span class="line"
          ><strong>{shot.name}</strong>
          {#if answer?.best}<span class="figure accent">{mm(answer.best.effective_mm)} mm</span>{/if}
          <span class={verdict?.look}>{verdict?.sign}</span></span
        >
        <span class="line soft">{lensWords(answer?.best)}</span>
      </button>
    </li>
  {/each}
</ul>

<style>
  ul {
    display: flex;
    gap: 6px;
    overflow-x: auto;
    padding-bottom: 4px;
    scrollbar-width: thin;
  }
  /* With the gap it is ITEM_PX wide. */
  li {
    flex: 0 0 152px;
  }
  /* What is not drawn is room: of the list itself it would be width. */
  li:first-child {
    margin-left: var(--before);
  }
  li:last-child {
    margin-right: var(--after);
  }
  button {
    display: grid;
    gap: 1px;
    width: 100%;
    padding: 2px;
    border: 1px solid transparent;
    text-align: left;
    font-size: 13px;
  }
  button[aria-pressed='true'] {
    border-color: var(--accent);
    background: var(--cell-strong);
  }
  .frame {
    display: grid;
    height: 84px;
    overflow: hidden;
    pointer-events: none;
  }
  .frame :global(figure) {
    min-height: 0;
    padding: 0;
    border: 0;
  }
  .none {
    place-self: center;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 4px;
    white-space: nowrap;
    overflow: hidden;
  }
  .accent {
    color: var(--accent);
  }
  @media print {
    ul {
      --before: 0 !important;
      --after: 0 !important;
      flex-wrap: wrap;
      overflow: visible;
    }
  }
</style>
