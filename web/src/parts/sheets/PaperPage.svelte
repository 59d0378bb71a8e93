<script lang="ts">
  import type { PaperPage } from '../../lib/types'

  interface Props {
    page: PaperPage
    /** Said of it to whoever does not see it. */
    told: string
    /** Whether it is as large as it will be on paper. */
    real?: boolean
  }
  let { page, told, real = false }: Props = $props()
  const MM_OF_PT = 25.4 / 72
  const HATCH_MM = 1.1

  type Mark = PaperPage['marks'][number]
  const path = (points: readonly number[][]) => `M${points.map((point) => point.join(' ')).join('L')}`
  const boxes = (mark: Mark) =>
    mark.points.map(([x, y, w, h]) => `M${x} ${y}h${w}v${h}h${-(w ?? 0)}z`).join('')
  function hatched(mark: Mark): string {
    const xs = mark.points.map(([x]) => x ?? 0)
    const ys = mark.points.map(([, y]) => y ?? 0)
    const [top, bottom, left, right] = [Math.min(...ys), Math.max(...ys), Math.min(...xs), Math.max(...xs)]
    const lines = []
    for (let x = left - (bottom - top); x < right; x += HATCH_MM)
      lines.push(`M${x} ${bottom}L${x + bottom - top} ${top}`)
    return lines.join('')
  }
  const own = $props.id()
</script>

<svg
  class="paper"
  class:dark={page.dark}
  viewBox="0 0 {page.width_mm} {page.height_mm}"
  style:max-width={real ? 'none' : `${page.width_mm * 4.2}px`}
  style:width={real ? `${page.width_mm}mm` : '100%'}
  role="img"
  aria-label={told}
>
  {#each page.marks as mark, i (i)}
    {#if mark.kind === 'text'}
      {@const [x, y] = mark.points[0] ?? [0, 0]}
      <text
        {x}
        {y}
        class="text {mark.style}"
        class:strong={mark.strong}
        text-anchor={mark.anchor}
        font-size={mark.size_pt * MM_OF_PT}
        transform={mark.turned ? `rotate(180 ${x} ${y})` : undefined}>{mark.text}</text
      >
    {:else if mark.kind === 'boxes'}
      <path class="area {mark.style}" d={boxes(mark)} />
    {:else if mark.style === 'hatch'}
      <clipPath id="{own}-{i}"><path d="{path(mark.points)}z" /></clipPath>
      <path class="line hatch" clip-path="url(#{own}-{i})" d={hatched(mark)} />
    {:else if mark.kind === 'area'}
      <path class="area {mark.style}" d="{path(mark.points)}z" />
    {:else}
      <path class="line {mark.style}" d={path(mark.points)} />
    {/if}
  {/each}
</svg>

<style>
  /* Paper is white and its ink black, whatever the mode of the screen: as it is printed. */
  .paper {
    --pen: #000;
    --grey: #5c5c5c;
    display: block;
    height: auto;
    background: #fff;
    box-shadow: 0 1px 6px rgb(0 0 0 / 35%);
  }
  .text {
    font-family: var(--font-words);
    fill: var(--pen);
  }
  .text.strong {
    font-weight: 500;
  }
  .text.quiet {
    fill: var(--grey);
  }
  .line {
    fill: none;
    stroke: var(--pen);
    stroke-width: 0.2;
  }
  .rule {
    stroke-width: 0.35;
  }
  .frame {
    stroke-width: 0.3;
  }
  .hairline {
    stroke: #737373;
    stroke-width: 0.12;
  }
  .thin {
    stroke-width: 0.14;
  }
  .dashed {
    stroke: #404040;
    stroke-dasharray: 1.4 1;
  }
  .circle {
    stroke-width: 0.25;
    stroke-dasharray: 0.4 0.8;
  }
  .line.lamp {
    stroke-width: 0.5;
  }
  .hatch {
    stroke: #262626;
    stroke-width: 0.16;
  }
  .shade {
    fill: #f1f1f1;
  }
  .soft {
    fill: #dedede;
  }
  .fill {
    fill: #a8a8a8;
  }
  .area.dark {
    fill: #4d4d4d;
  }
  .area.lamp {
    fill: #fcfcfc;
    stroke: var(--pen);
    stroke-width: 0.14;
  }
  .paper.dark {
    --pen: #edf2f7;
    --grey: #a3b5c7;
    background: #131d2a;
  }
  .paper.dark .shade {
    fill: #1d2937;
  }
  .paper.dark .soft {
    fill: #2b3c4d;
  }
  .paper.dark .fill {
    fill: #5e7387;
  }
  .paper.dark .area.dark {
    fill: #9eb0bf;
  }
  .paper.dark .area.lamp {
    fill: #f2b85c;
    stroke: none;
  }
  .paper.dark .text.focus {
    fill: #f5c778;
  }
  .paper.dark .text.covers {
    fill: #9edbb3;
  }
  .paper.dark .text.marginal {
    fill: #f2bf66;
  }
  .paper.dark .text.short {
    fill: #f78f75;
  }
  .paper.dark .hairline {
    stroke: #54697d;
  }
  .paper.dark .dashed {
    stroke: #edf2f7;
  }
</style>
