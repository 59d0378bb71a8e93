<script lang="ts" generics="V extends string | number | boolean | null">
  import { Combobox, Portal, useListCollection } from '@skeletonlabs/skeleton-svelte'
  import { tick } from 'svelte'
  import type { Option } from '../../lib/options'

  interface Props {
    /** Its name; none where a label stands around it. */
    label?: string
    options: readonly Option<V>[]
    /** None of them, where nothing is chosen. */
    value: NoInfer<V> | null | undefined
    onchange: (value: V) => void
    /** What stands there while nothing is chosen. */
    placeholder?: string
    /** Equipment, of which there may be much: a long list is searched by typing. */
    search?: boolean
    /** Whether it takes the width that there is. */
    grow?: boolean
    /** Whether it shows figures. */
    figure?: boolean
  }
  let {
    label,
    options,
    value,
    onchange,
    placeholder = '',
    search = false,
    grow = false,
    figure = false,
  }: Props = $props()

  /** Up to this many are found by looking. */
  const SHORT = 15
  // A telephone has a wheel of its own for lists, and no room for a keyboard over the page.
  const touched = globalThis.matchMedia?.('(pointer: coarse)').matches ?? true
  const native = $derived(!search || touched || options.length <= SHORT)

  const keyOf = (option: V | null | undefined) => String(option ?? '')
  const written = (o: Option<V> | undefined) => (o ? `${o.label}${o.sign ? ` ${o.sign}` : ''}` : '')
  const groups = $derived([...new Set(options.map((o) => o.group ?? ''))])
  const chosen = $derived(options.find((o) => o.value === value))
  function take(key: string | undefined) {
    const option = options.find((o) => keyOf(o.value) === key)
    if (option && option.value !== value) onchange(option.value)
  }

  let query = $state('')
  let open = $state(false)
  const words = $derived(query.toLowerCase().split(/\s+/))
  const found = $derived(
    native
      ? []
      : options.filter((o) =>
          words.every((word) => `${o.label} ${o.group ?? ''}`.toLowerCase().includes(word)),
        ),
  )
  const collection = $derived(
    useListCollection<Option<V>>({
      items: found,
      itemToString: (o) => o.label,
      itemToValue: (o) => keyOf(o.value),
      isItemDisabled: (o) => o.disabled ?? false,
      groupBy: (o) => o.group ?? '',
    }),
  )
</script>

{#snippet inGroup(group: string)}
  {#each options.filter((o) => (o.group ?? '') === group) as option (option.value)}<option
      value={keyOf(option.value)}
      disabled={option.disabled}>{written(option)}</option
    >{/each}
{/snippet}

{#if native}
  <select
    class="set"
    class:grow
    class:figure
    aria-label={label}
    value={keyOf(value)}
    onchange={(event) => {
      take(event.currentTarget.value)
      // Shows what is set, also where the choice was refused or is taken once only.
      const select = event.currentTarget
      void tick().then(() => (select.value = keyOf(value)))
    }}
  >
    {#if placeholder}<option value="" disabled>{placeholder}</option>{/if}
    {#each groups as group (group)}
      {#if group}<optgroup label={group}>{@render inGroup(group)}</optgroup>{:else}{@render inGroup(
          group,
        )}{/if}
    {/each}
  </select>
{:else}
  <Combobox
    {collection}
    value={[keyOf(value)]}
    inputValue={open ? query : written(chosen)}
    placeholder={written(chosen) || placeholder}
    openOnClick
    inputBehavior="autohighlight"
    onValueChange={(details) => take(details.value[0])}
    onOpenChange={(details) => {
      open = details.open
      if (!details.open) query = ''
    }}
    onInputValueChange={(details) => {
      if (details.reason === 'input-change')
        query = open ? details.inputValue : details.inputValue.replace(written(chosen), '')
    }}
    positioning={{ placement: 'bottom-start', strategy: 'fixed', sameWidth: false }}
  >
    <Combobox.Control
      ><Combobox.Input class={grow ? 'set grow' : 'set'} aria-label={label} /></Combobox.Control
    >
    <Portal
      ><Combobox.Positioner class="z-50"
        ><Combobox.Content
          >{#if open}
            {#each collection.group() as [group, items] (group)}<Combobox.ItemGroup
                >{#if group}<Combobox.ItemGroupLabel>{group}</Combobox.ItemGroupLabel>{/if}
                {#each items as item (item.value)}<Combobox.Item {item}
                    ><Combobox.ItemText>{item.label}</Combobox.ItemText>{#if item.sign}<span class="soft"
                        ><span aria-hidden="true">{item.sign}</span> {item.words}</span
                      >{/if}</Combobox.Item
                  >{/each}</Combobox.ItemGroup
              >{:else}<p role="status" class="none">Nothing here is called “{query}”.</p>{/each}
          {/if}</Combobox.Content
        ></Combobox.Positioner
      ></Portal
    >
  </Combobox>
{/if}

<style>
  select {
    max-width: 100%;
  }
  .grow {
    flex: 1;
    min-width: 0;
    width: 100%;
    text-overflow: ellipsis;
    text-align: left;
  }
  .none {
    padding: 0.5rem 0.7rem;
  }
</style>
