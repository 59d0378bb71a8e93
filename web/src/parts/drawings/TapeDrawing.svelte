<script lang="ts">
  import { scaleLinear } from 'd3-scale'

  interface Props {
    /** Widths in mm: what the tape implies with its error, what is computed, what is claimed. */
    implied: number
    error: number
    computed: number
    claimed: { name: string; width_mm: number }[]
  }
  let { implied, error, computed, claimed }: Props = $props()

  let width = $state(560)
  const HEIGHT = 54
  // Claims far off would flatten the rest: they are left to the words.
  const near = $derived(claimed.filter((c) => Math.abs(c.width_mm / computed - 1) < 0.4))
  const marks = $derived([implied - error, implied + error, computed, ...near.map((c) => c.width_mm)])
  const x = $derived(
    scaleLinear()
      .domain([Math.min(...marks), Math.max(...marks)])
      .nice()
      .range([24, width - 24]),
  )
</script>

<span class="canvas" bind:clientWidth={width}>
  <svg
    {width}
    height={HEIGHT}
    role="img"
    aria-label="Widths in mm: by the tape, computed and claimed, to scale"
  >
    <line class="axis" x1="10" x2={width - 10} y1="34" y2="34" />
    {#each x.ticks(6) as tick (tick)}
      <line class="axis" x1={x(tick)} x2={x(tick)} y1="34" y2="39" />
      <text class="figure" x={x(tick)} y="51" text-anchor="middle">{tick}</text>
    {/each}
    <rect
      class="implied"
      data-testid="tape-band"
      x={x(implied - error)}
      y="16"
      width={Math.max(x(implied + error) - x(implied - error), 2)}
      height="18"
    />
    <line class="tape" x1={x(implied)} x2={x(implied)} y1="14" y2="34" />
    <path class="computed" d="M{x(computed)} 34l-5 -10h10z"
      ><title>computed {computed.toFixed(2)} mm</title></path
    >
    {#each near as claim (claim.name)}
      <line class="claim" x1={x(claim.width_mm)} x2={x(claim.width_mm)} y1="14" y2="38"
        ><title>{claim.name}: {claim.width_mm.toFixed(2)} mm</title></line
      >
      <text x={x(claim.width_mm)} y="11" text-anchor="middle">{claim.name.split(' ')[0]}</text>
    {/each}
  </svg>
</span>

<style>
  .canvas {
    display: block;
    flex-basis: 100%;
    max-width: 640px;
    overflow: hidden;
  }
  text {
    font-size: 12px;
    fill: var(--ink-soft);
  }
  .axis {
    stroke: var(--line-strong);
  }
  .implied {
    fill: var(--accent-fill);
  }
  .tape {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .computed {
    fill: var(--light);
  }
  .claim {
    stroke: var(--ink-soft);
    stroke-dasharray: 2 3;
  }
</style>
