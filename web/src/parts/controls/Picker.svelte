<script lang="ts" generics="V extends string">
  import { Combobox, Portal, useListCollection } from '@skeletonlabs/skeleton-svelte'

  interface Option {
    value: V
    label: string
    group: string
    /** A sign beside it, and what it says. */
    sign?: string
    words?: string
  }
  interface Props {
    label: string
    options: readonly Option[]
    value: V
    onchange: (value: V) => void
  }
  let { label, options, value, onchange }: Props = $props()

  /** Up to this many are found by looking. */
  const SHORT = 15
  // A telephone has a wheel of its own for lists, and no room for a keyboard over the page.
  const touched = globalThis.matchMedia?.('(pointer: coarse)').matches ?? true
  const native = $derived(touched || options.length <= SHORT)

  const groups = $derived([...new Set(options.map((o) => o.group))])
  const chosen = $derived(options.find((o) => o.value === value))
  const written = (o: Option | undefined) => (o ? `${o.label}${o.sign ? ` ${o.sign}` : ''}` : '')

  let query = $state('')
  let open = $state(false)
  const words = $derived(query.toLowerCase().split(/\s+/))
  const found = $derived(
    options.filter((o) => words.every((word) => `${o.label} ${o.group}`.toLowerCase().includes(word))),
  )
  const collection = $derived(
    useListCollection<Option>({
      items: [...found],
      itemToString: (o) => o.label,
      itemToValue: (o) => o.value,
      groupBy: (o) => o.group,
    }),
  )
  function take(taken: string | undefined) {
    const option = options.find((o) => o.value === taken)
    if (option && option.value !== value) onchange(option.value)
  }
</script>

{#if native}
  <select class="set grow" aria-label={label} {value} onchange={(event) => take(event.currentTarget.value)}>
    {#each groups as group (group)}
      <optgroup label={group}>
        {#each options.filter((o) => o.group === group) as option (option.value)}<option value={option.value}
            >{written(option)}</option
          >{/each}
      </optgroup>
    {/each}
  </select>
{:else}
  <Combobox
    {collection}
    value={[value]}
    inputValue={open ? query : written(chosen)}
    placeholder={written(chosen)}
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
    <Combobox.Label class="sr-only">{label}</Combobox.Label>
    <Combobox.Control><Combobox.Input class="set" aria-label={label} /></Combobox.Control>
    <Portal
      ><Combobox.Positioner class="z-50"
        ><Combobox.Content
          >{#if open}
            {#each collection.group() as [group, items] (group)}<Combobox.ItemGroup
                ><Combobox.ItemGroupLabel>{group}</Combobox.ItemGroupLabel>
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
