<script lang="ts">
  import type { ListedShots } from '../../lib/types'

  interface Props {
    sheet: ListedShots
  }
  let { sheet }: Props = $props()

  const MOST = 14
  const lines = $derived([
    { title: 'Lenses', uses: sheet.lenses },
    { title: 'Recording formats', uses: sheet.formats },
    { title: 'Bodies', uses: sheet.bodies },
  ])
</script>

<section aria-label="What the list uses">
  <h3>What the list uses</h3>
  <dl>
    {#each lines as { title, uses } (title)}
      <dt class="soft">{title}</dt>
      <dd>
        {#each uses.slice(0, MOST) as use (use.name)}<span class="use"
            >{use.name} <span class="figure soft">×{use.shots}</span></span
          >{/each}
        {#if uses.length > MOST}<span class="soft">and {uses.length - MOST} more</span>{/if}
      </dd>
    {/each}
    {#if sheet.on_main}
      <dt class="soft">Main format</dt>
      <dd><span class="figure">{sheet.on_main.stay} of {sheet.on_main.of}</span> shots stay on it</dd>
    {/if}
  </dl>
</section>

<style>
  section {
    font-size: 13px;
  }
  h3 {
    margin-bottom: 2px;
    font-size: 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 8.5rem minmax(0, 1fr);
    gap: 2px 8px;
  }
  dd {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
  }
  .use {
    white-space: nowrap;
  }
</style>
