<script lang="ts" module>
  import type { Axis } from '../../lib/plots'

  /** What is drawn in a frame: where its field lies, in pixels, and both axes. */
  export interface Field {
    left: number
    right: number
    top: number
    bottom: number
    x: Axis
    y: Axis
    /** Clips what leaves the field: `clip-path={field.clip}`. */
    clip: string
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { Mark, Span } from '../../lib/plots'

  interface Props {
    title: string
    /** Beside the title, softer. */
    note?: string
    /** The plot in words. */
    label: string
    /** In pixels; without it the frame fills the figure that it stands in. */
    height?: number
    /** Room for figures and words around the field. */
    room?: { left: number; right: number; top: number; bottom: number }
    /** Makers of the axes, of the pixels between which they run. */
    across: (pixels: Span) => Axis
    up: (pixels: Span) => Axis
    marksAcross: readonly Mark[]
    marksUp: readonly Mark[]
    unitAcross?: string
    unitUp?: string
    /** Lines of the marks cross the field. */
    lined?: boolean
    /** A press, by its pixels across. */
    onpick?: (px: number) => void
    children: Snippet<[Field]>
    /** Below the drawing. */
    key?: Snippet
  }
  let {
    title,
    note,
    label,
    height,
    room = { left: 52, right: 10, top: 8, bottom: 34 },
    across,
    up,
    marksAcross,
    marksUp,
    unitAcross,
    unitUp,
    lined = true,
    onpick,
    children,
    key,
  }: Props = $props()

  let width = $state(360)
  let filled = $state(300)
  const id = $props.id()
  const tall = $derived(height ?? filled)
  const [left, top] = $derived([room.left, room.top])
  const right = $derived(Math.max(width - room.right, left + 1))
  const bottom = $derived(Math.max(tall - room.bottom, top + 1))
  const x = $derived(across([left, right]))
  const y = $derived(up([bottom, top]))
</script>

<figure class="drawing" class:halo={height === undefined}>
  <figcaption>
    {title}{#if note}<span class="soft">&ensp;· {note}</span>{/if}
  </figcaption>
  <div class="canvas" class:own={height !== undefined} bind:clientWidth={width} bind:clientHeight={filled}>
    <!-- What a press sets is set in its field by keyboard. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      {width}
      height={tall}
      role="img"
      aria-label={label}
      class:picks={onpick}
      onclick={(event) => onpick?.(event.offsetX)}
    >
      <defs
        ><clipPath {id}><rect x={left} y={top} width={right - left} height={bottom - top} /></clipPath></defs
      >
      {#each marksAcross as { at, text, anchor = 'middle' } (at)}
        {#if lined}<line class="gridline" x1={x(at)} x2={x(at)} y1={top} y2={bottom} />{/if}
        <text class="figure tick" x={x(at)} y={bottom + 15} text-anchor={anchor}>{text}</text>
      {/each}
      {#each marksUp as { at, text } (at)}
        {#if lined}<line class="gridline" x1={left} x2={right} y1={y(at)} y2={y(at)} />{/if}
        <text class="figure tick" x={left - 5} y={y(at) + 4} text-anchor="end">{text}</text>
      {/each}
      {#if unitAcross}
        <text class="tick" x={(left + right) / 2} y={tall - 4} text-anchor="middle">{unitAcross}</text>
      {/if}
      {#if unitUp}
        <text class="tick" transform="translate(11 {(bottom + top) / 2}) rotate(-90)" text-anchor="middle"
          >{unitUp}</text
        >
      {/if}
      {@render children({ left, right, top, bottom, x, y, clip: `url(#${id})` })}
    </svg>
  </div>
  {@render key?.()}
</figure>

<style>
  .picks {
    cursor: crosshair;
  }
</style>
