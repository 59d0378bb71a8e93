<script lang="ts">
  import { asked, groupsIn, replaced } from '../../lib/spans'
  import type { Span } from '../../lib/types'

  interface Props {
    text: string
    spans: readonly Span[]
    /** Takes a meaning: the text that says so. */
    ontext: (text: string) => void
  }
  let { text, spans, ontext }: Props = $props()

  const told = $derived(spans.filter((span) => span.group !== 'plain'))
  const open = $derived(asked(spans))
  const legend = $derived(groupsIn(spans))
  /** The place of the word that is looked at. */
  let chosen = $state<number | null>(null)
  const shown = $derived(told.find((span) => span.start === chosen) ?? open[0])
  /** One word of all is reached with Tab, the others with the arrows. */
  const reached = $derived(shown?.start ?? told[0]?.start)
  let box = $state<HTMLElement>()

  // A word that is asked about, or looked at, is brought into sight within the box, and the page stays where it is.
  $effect(() => {
    const word = box?.querySelector<HTMLElement>(`[data-start="${shown?.start ?? -1}"]`)
    if (box && word) box.scrollTop = word.offsetTop - box.offsetTop - box.clientHeight / 2
  })

  function step(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
    if (by === undefined || !told.length) return
    event.preventDefault()
    const at = told.findIndex((span) => span.start === reached)
    const next = told[(at + by + told.length) % told.length]
    if (!next) return
    chosen = next.start
    box?.querySelector<HTMLElement>(`[data-start="${next.start}"]`)?.focus()
  }
  function take(span: Span, by: string) {
    ontext(replaced(text, span, by))
    chosen = null
  }
  const name = (span: Span) => [span.text.trim(), span.asked || span.taken_for].filter(Boolean).join(': ')
</script>

{#if told.length}
  <div class="read">
    <p class="groups soft" aria-hidden="true">
      {#each legend as { group, label } (group)}<span class="stretch {group}">{label}</span>{/each}
    </p>
    <div
      bind:this={box}
      class="text figure"
      role="toolbar"
      tabindex="-1"
      aria-label="What was understood, word by word"
      onkeydown={step}
    >
      {#each spans as span (span.start)}{#if span.group === 'plain'}<span>{span.text}</span>{:else}<button
            type="button"
            class="stretch {span.group}"
            class:asked={span.asked}
            data-start={span.start}
            tabindex={span.start === reached ? 0 : -1}
            aria-label={name(span)}
            aria-pressed={span.start === chosen}
            title={span.asked || span.taken_for}
            onclick={() => (chosen = span.start)}>{span.text}</button
          >{/if}{/each}
    </div>
    {#if shown}
      <div class="meaning" class:warning={shown.asked} aria-live="polite">
        <p>
          {#if shown.asked}<span class="warn">{shown.asked}</span>{:else}<span class="figure"
              >{shown.text.trim()}</span
            >
            <span class="soft">{shown.taken_for}</span>{/if}
          {#if open.length > 1}<span class="soft">{open.length} words are open</span>{/if}
        </p>
        <p class="bar">
          {#each shown.options as option (option.text)}<button
              type="button"
              class="knob"
              onclick={() => take(shown, option.text)}>{option.told}</button
            >{/each}
          <button type="button" class="knob" onclick={() => take(shown, '')}>leave it out</button>
        </p>
      </div>
    {/if}
  </div>
{/if}

<style>
  .read {
    display: grid;
    gap: 6px;
  }
  .groups {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    font-size: 13px;
  }
  .text {
    padding: 8px 10px;
    border: 1px solid var(--line);
    background: var(--panel);
    font-size: 14px;
    line-height: 1.9;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    max-height: 22rem;
    overflow-y: auto;
  }
  .stretch {
    text-decoration-line: underline;
    text-decoration-thickness: 2px;
    text-underline-offset: 4px;
    text-decoration-skip-ink: none;
  }
  button.stretch {
    display: inline;
    min-height: 0;
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    white-space: pre-wrap;
    text-align: start;
    cursor: pointer;
  }
  button.stretch:hover,
  button.stretch[aria-pressed='true'] {
    background: var(--cell);
  }
  /* A colour and a pattern each, so that either tells it. */
  .lens {
    text-decoration-color: var(--light);
    text-decoration-style: solid;
  }
  .readout {
    text-decoration-color: var(--accent);
    text-decoration-style: double;
  }
  .recording {
    text-decoration-color: var(--ok);
    text-decoration-style: dashed;
  }
  .rate {
    text-decoration-color: var(--rate);
    text-decoration-style: dotted;
    text-decoration-thickness: 3px;
  }
  .crop {
    text-decoration-color: var(--bad);
    text-decoration-style: wavy;
    text-decoration-thickness: 1px;
  }
  .light,
  .other {
    text-decoration-color: var(--line-strong);
    text-decoration-style: solid;
    text-decoration-thickness: 1px;
  }
  .unused {
    color: var(--ink-soft);
    text-decoration-line: line-through;
    text-decoration-thickness: 1px;
  }
  .asked {
    color: var(--ink);
    background: var(--accent-fill);
    text-decoration-line: none;
    outline: 1px dashed var(--accent);
  }
  .meaning {
    display: grid;
    gap: 4px;
    padding: 6px 10px;
    border-left: 2px solid var(--line);
    font-size: 14px;
  }
  .meaning.warning {
    border-color: var(--accent);
  }
  @media (pointer: coarse) {
    .text {
      line-height: 2.6;
    }
  }
</style>
