<script lang="ts">
  import type { Snippet } from 'svelte'
  import { pathTo, router } from '../../lib/router.svelte'
  import { GROUPS, SECTIONS } from '../../lib/views'

  interface Props {
    productionId: number
    current: (typeof SECTIONS)[number]['name']
    /** What leads out of the package. */
    children: Snippet
  }
  let { productionId, current, children }: Props = $props()
  const groups = Object.entries(GROUPS).map(([group, title]) => ({
    title,
    sections: SECTIONS.filter((section) => section.group === group),
  }))

  /** On a telephone each group is one list to choose from. */
  function choose(name: string) {
    const found = SECTIONS.find((section) => section.name === name)
    if (found) router.go(pathTo(productionId, 'package', found.name))
  }
</script>

<nav class="no-print" aria-label="Sections of the package">
  {#each groups as { title, sections } (title)}
    <div class="group" role="group" aria-label={title}>
      <span class="soft title" aria-hidden="true">{title}</span>
      {#each sections as { name, title: section } (name)}
        <a href={pathTo(productionId, 'package', name)} aria-current={name === current ? 'page' : undefined}
          >{section}</a
        >
      {/each}
      <select
        aria-label={title}
        value={sections.some((s) => s.name === current) ? current : ''}
        class:here={sections.some((s) => s.name === current)}
        onchange={(event) => choose(event.currentTarget.value)}
      >
        <option value="" disabled>{title}</option>
        {#each sections as { name, title: section } (name)}<option value={name}>{section}</option>{/each}
      </select>
    </div>
  {/each}
  <span class="aside">{@render children()}</span>
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.6rem;
  }
  .group {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.1rem;
  }
  .group + .group {
    padding-left: 1.6rem;
    border-left: 1px solid var(--line);
  }
  .title,
  select {
    display: none;
  }
  a {
    padding-block: 2px;
    color: var(--ink-soft);
    border-bottom: 2px solid transparent;
  }
  a:hover {
    color: var(--ink);
  }
  a[aria-current] {
    color: var(--ink);
    border-bottom-color: var(--accent);
  }
  .aside {
    margin-left: auto;
    padding-block: 2px;
  }
  @media (max-width: 1000px) {
    nav {
      flex-direction: column;
    }
    .group + .group {
      padding-left: 0;
      border-left: 0;
    }
    .title {
      display: inline;
      min-width: 6.5rem;
      padding-block: 3px;
    }
    .aside {
      margin-left: 0;
    }
  }
  @media (pointer: coarse) {
    .title {
      align-self: center;
    }
  }
  @media (max-width: 560px) {
    nav {
      flex-direction: row;
      gap: 0.4rem 0.8rem;
    }
    .group a,
    .title {
      display: none;
    }
    .group {
      flex: 1 1 9rem;
    }
    .aside {
      flex-basis: 100%;
    }
    select {
      display: block;
      width: 100%;
      min-height: 44px;
      padding-inline: 8px;
      border: 1px solid var(--line);
      border-radius: 4px;
      background: var(--ground);
    }
    select.here {
      border-bottom: 2px solid var(--accent);
    }
  }
</style>
