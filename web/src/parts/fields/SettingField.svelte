<script lang="ts">
  import type { SettingsEditor } from '../../lib/settings.svelte'
  import { rate } from '../../lib/format'
  import { shutterTime } from '../../lib/light'
  import EntryField from './EntryField.svelte'

  interface Props {
    label: string
    editor: SettingsEditor
    path: 'base_fps' | 'wanted_fps' | 'shutter_deg' | 'crossing_s' | 'minutes_a_day'
    unit: string
  }
  let { label, editor, path, unit }: Props = $props()
  const value = $derived(editor.settings?.[path])
  /** Rates are kept as exact fractions and shown as they are printed. */
  const shown = $derived.by(() => {
    if (typeof value !== 'string') return value
    const [over, under] = value.split('/').map(Number)
    return under && over ? rate(over / under) : value
  })
  /** At which the shutter's time is told. */
  const baseFps = $derived.by(() => {
    const [over = 0, under = 1] = String(editor.settings?.base_fps ?? '')
      .split('/')
      .map(Number)
    return over / under || null
  })
</script>

<span class="field"
  ><span class="soft">{label}</span>
  <EntryField
    {label}
    kind={path.endsWith('_fps') ? 'text' : 'number'}
    value={shown}
    fault={editor.fault(path)}
    oninput={(typed) => editor.set(path, typed)}
  />
  {unit}{#if path === 'shutter_deg' && shown && baseFps}<span class="soft"
      >= {shutterTime(Number(shown) / 360 / baseFps)}</span
    >{/if}</span
>

<style>
  .field {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
  }
  .field :global(input) {
    border-bottom-color: var(--line-strong);
  }
</style>
