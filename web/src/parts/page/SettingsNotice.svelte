<script lang="ts">
  import type { SettingsEditor } from '../../lib/settings.svelte'
  import type { Problem } from '../../lib/types'
  import NoticeBar from './NoticeBar.svelte'

  interface Props {
    editor: SettingsEditor
    /** What else went wrong in the view. */
    problem: Problem | null
  }
  let { editor, problem }: Props = $props()
  const stale = $derived(editor.problem?.code === 'stale_write')
  const shown = $derived(editor.problem ?? problem)
</script>

{#if shown}
  <NoticeBar what="package" problem={shown} conflict={false} onresolve={() => {}} onundo={null} />
  {#if stale}<button class="knob" onclick={() => editor.takeTheirs()}>Take the saved settings</button>{/if}
{/if}
