<script lang="ts">
  import { mm } from '../../lib/format'
  import { VERDICTS } from '../../lib/shotList'
  import type { FinderView, Shot, ShotAnswer } from '../../lib/types'
  import FinderDrawing from '../drawings/FinderDrawing.svelte'
  import { lensWords } from './shotColumns'

  interface Props {
    shots: readonly Shot[]
    answers: ReadonlyMap<string, ShotAnswer>
    /** By the key of the shot; nothing while it is drawn, or where no image is formed. */
    pictures: ReadonlyMap<string, FinderView>
    chosen: string | undefined
    onchoose: (key: string) => void
  }
  let { shots, answers, pictures, chosen, onchoose }: Props = $props()

  let list = $state<HTMLElement>()
  // What is chosen elsewhere comes into sight.
  $effect(() => {
    const item = list?.querySelector(`[data-shot="${chosen ?? ''}"]`)
    item?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  })
</script>

<ul bind:this={list} aria-label="Finder pictures in order">
  {#each shots as shot (shot.key)}
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
              >{answer?.verdict === 'open' ? 'open' : ''}</span
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
  li {
    flex: 0 0 152px;
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
      flex-wrap: wrap;
      overflow: visible;
    }
  }
</style>
