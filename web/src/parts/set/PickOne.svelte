<script lang="ts" generics="V extends string | number">
  interface Option {
    value: V
    label: string
    more: string
    planned: boolean
  }
  interface Props {
    label: string
    options: readonly Option[]
    /** None of them, where nothing is chosen. */
    value: V | null
    /** Several at a time: those that are on. */
    pressed?: readonly V[] | undefined
    onpick: (value: V) => void
  }
  let { label, options, value, pressed, onpick }: Props = $props()
</script>

<fieldset>
  <legend class="soft">{label}</legend>
  {#each options as option (option.value)}
    <button
      class="pick"
      aria-pressed={pressed ? pressed.includes(option.value) : option.value === value}
      onclick={() => onpick(option.value)}
    >
      {option.label}
      {#if option.more}<span class="soft">{option.more}</span>{/if}
      {#if option.planned}<span class="planned">planned</span>{/if}
    </button>
  {:else}
    <span class="soft">Nothing to choose from: see the Package.</span>
  {/each}
</fieldset>

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    width: 100%;
  }
  legend {
    padding-bottom: 3px;
    font-size: 13px;
  }
  .pick {
    display: inline-grid;
    min-width: 64px;
    min-height: 44px;
    padding: 4px 10px;
    border: 1px solid var(--line);
    align-content: center;
    text-align: left;
    cursor: pointer;
  }
  .pick[aria-pressed='true'] {
    background: var(--cell-strong);
    border-color: var(--accent);
  }
  .pick .soft,
  .planned {
    font-size: 12px;
  }
  .planned {
    color: var(--accent);
  }
</style>
