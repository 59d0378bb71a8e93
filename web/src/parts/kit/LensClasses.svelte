<script lang="ts">
  interface Props {
    /** Where each class of lenses begins and ends, pixels. */
    classes: readonly { name: string; from: number; to: number }[]
    top: number
    height: number
  }
  let { classes, top, height }: Props = $props()
  /** A class that is narrower has no room for its name. */
  const NAMED_PX = 44
</script>

{#each classes as c, i (c.name)}
  {#if c.to > c.from}
    <rect
      class="class"
      class:odd={i % 2 === 1}
      x={c.from}
      y={top - 18}
      width={c.to - c.from}
      height={height - top - 8}
    />
    {#if c.to - c.from > NAMED_PX}<text
        class="class-name"
        x={(c.from + c.to) / 2}
        y={top - 22}
        text-anchor="middle">{c.name}</text
      >{/if}
  {/if}
{/each}

<style>
  .class {
    fill: var(--light-fill);
    opacity: 0.35;
  }
  .class.odd {
    opacity: 0.85;
  }
  .class-name {
    fill: var(--light);
  }
</style>
