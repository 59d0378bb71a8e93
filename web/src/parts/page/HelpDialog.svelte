<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte'
  import { isSingle, keySettings } from '../../lib/keys.svelte'
  import type { Shortcut } from '../../lib/shortcuts'

  interface Props {
    open: boolean
    shortcuts: readonly Shortcut[]
    /** Keys that a part of the view answers to by itself. */
    more: readonly { keys: string; does: string }[]
    onopen: (open: boolean) => void
  }
  let { open, shortcuts, more, onopen }: Props = $props()

  /** The shortcut that waits for its new key. */
  let asked = $state.raw<Shortcut | null>(null)
  let told = $state('')

  function take(event: KeyboardEvent) {
    if (!asked || ['Shift', 'Control', 'Alt', 'Meta', 'Tab'].includes(event.key)) return
    event.preventDefault()
    event.stopPropagation()
    if (event.key !== 'Escape') {
      if (event.key.length !== 1 || event.ctrlKey || event.altKey || event.metaKey) {
        told = 'One letter, figure or sign, without Ctrl or Alt.'
        return
      }
      told = keySettings.give(asked, event.key, shortcuts)
    }
    asked = null
  }
</script>

<Dialog
  {open}
  closeOnEscape={asked === null}
  onOpenChange={(details) => {
    asked = null
    told = ''
    onopen(details.open)
  }}
>
  <Portal>
    <Dialog.Backdrop class="fixed inset-0 z-50 bg-black/50" />
    <Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center p-4">
      <Dialog.Content class="help">
        <Dialog.Title class="title">Keys</Dialog.Title>
        {#if open}
          <label class="heard"
            ><input
              type="checkbox"
              checked={keySettings.heard}
              onchange={(event) => keySettings.switch(event.currentTarget.checked)}
            /> Single keys are heard. ? always is, and all keys rest while something is typed.</label
          >
          <ul>
            {#each shortcuts as shortcut (shortcut.does)}
              {@const own = shortcut.does in keySettings.own}
              <li>
                {#if isSingle(shortcut)}<button
                    class="knob figure"
                    aria-label="{keySettings.words(shortcut)}: {shortcut.does}. Give it another key"
                    onclick={() => {
                      asked = shortcut
                      told = ''
                    }}
                    onkeydown={take}
                    >{asked === shortcut ? 'press a key' : keySettings.words(shortcut)}</button
                  >{:else}<span class="figure always">{shortcut.keys}</span>{/if}
                <span
                  >{shortcut.does}{#if own}
                    <button class="knob" onclick={() => keySettings.give(shortcut, null, shortcuts)}
                      >{shortcut.keys} again</button
                    >{/if}</span
                >
              </li>
            {/each}
            {#each more as { keys, does } (keys)}
              <li><span class="figure always">{keys}</span><span>{does}</span></li>
            {/each}
          </ul>
          {#if told}<p class="fault" role="alert">{told}</p>{/if}
          <p class="soft">
            Distances can be typed as 2.9, 2.9m, 290cm, 9'6", 9ft 6in or 115in. Depth of field depends on what
            counts as sharp; the rule is in the header. No figure here replaces a test with the camera and
            lens at hand, and no distance is ever called safe: on boats, vehicles, heights and near water the
            safety supervisor decides.
          </p>
        {/if}
        <Dialog.CloseTrigger class="knob">Close</Dialog.CloseTrigger>
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  :global(.help) {
    max-width: 760px;
    max-height: 85vh;
    overflow-y: auto;
    padding: 1rem 1.3rem;
    background: var(--panel);
    border: 1px solid var(--line-strong);
    border-radius: 6px;
  }
  :global(.help .title) {
    font-size: 19px;
    font-weight: 500;
  }
  .heard {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    margin-top: 0.5rem;
    font-size: 14px;
  }
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
    gap: 2px 1.2rem;
    margin: 0.6rem 0;
  }
  li {
    display: grid;
    grid-template-columns: 6.6rem minmax(0, 1fr);
    align-items: center;
    gap: 0.6rem;
  }
  li .figure {
    justify-self: start;
    min-width: 2.2rem;
    color: var(--accent);
    font-size: 13.5px;
    text-align: left;
  }
  .always {
    padding-inline: 0.5rem;
  }
  p {
    margin-bottom: 0.8rem;
    font-size: 14px;
  }
</style>
