<script lang="ts">
  import { LINKS, PATH, TITLES, type LinkName } from './links'

  interface Props {
    /** What each link is set to, in a word or two. */
    words: Record<LinkName, string>
    open: LinkName | null
    ontoggle: (name: LinkName) => void
  }
  let { words, open, ontoggle }: Props = $props()
</script>

<ul aria-label={PATH}>
  {#each LINKS as name (name)}
    <li>
      <button
        class="figure"
        aria-expanded={open === name}
        aria-controls="link-cell"
        aria-label="{TITLES[name]}: {words[name]}"
        onclick={() => ontoggle(name)}>{words[name]}</button
      >
    </li>
  {/each}
</ul>

<style>
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
  }
  li {
    flex: 1 1 auto;
    max-width: 100%;
  }
  button {
    width: 100%;
    min-height: 44px;
    padding: 0 8px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 14px;
    background: var(--cell);
    border-bottom: 2px solid transparent;
  }
  button[aria-expanded='true'] {
    background: var(--cell-strong);
    border-bottom-color: var(--accent);
  }
</style>
