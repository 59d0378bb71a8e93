<script lang="ts">
  interface Props {
    label: string
    ontext: (text: string) => void
  }
  let { label, ontext }: Props = $props()

  /** More than this is no table that one would check by eye. */
  const MOST_BYTES = 200_000
  let told = $state('')

  async function read(input: HTMLInputElement) {
    const file = input.files?.[0]
    input.value = ''
    if (!file) return
    if (file.size > MOST_BYTES) {
      told = `${file.name} is larger than ${MOST_BYTES / 1000} kB: paste the rows that are wanted.`
      return
    }
    const text = await file.text()
    // Spreadsheets and pictures are no text.
    told = text.includes('\0') ? `${file.name} is no text: save it as CSV first.` : ''
    if (!told) ontext(text)
  }
</script>

<label class="item file"
  ><span class="soft">{label}</span>
  <input
    type="file"
    accept=".csv,.tsv,.txt,.md"
    onchange={(event) => void read(event.currentTarget)}
  /></label
>
{#if told}<span class="bad" role="alert">{told}</span>{/if}
