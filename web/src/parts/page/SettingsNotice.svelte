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
  const shown = $derived(editor.problem ?? problem)
</script>

<NoticeBar
  what="package"
  problem={shown}
  differences={editor.differences}
  onresolve={(take) => editor.resolve(take)}
  onundo={null}
/>
