<script lang="ts">
  import { aperture, rate } from '../../lib/format'
  import type { ClipHeld, DayReport } from '../../lib/types'

  interface Props {
    report: DayReport
    /** How far reading is. */
    reading: { done: number; all: number; busy: boolean; told: string; problems: readonly string[] }
    unit: string
    onfiles: (files: File[]) => void
    onstop: () => void
  }
  let { report, reading, unit, onfiles, onstop }: Props = $props()
  let over = $state(false)
  let open = $state<string | null>(null)
  const clips = $derived(report.clips.clips)
  const factsOf = (clip: ClipHeld) => clip.fits.slice(1).join('; ')
  const told = ({ facts }: ClipHeld) =>
    [
      facts.raster ? `${facts.raster.join(' × ')} pixels` : '',
      facts.pixel_aspect && facts.pixel_aspect !== 1 ? `each ${facts.pixel_aspect} wide` : '',
      facts.interlaced ? 'interlaced' : '',
      facts.fps ? `${rate(facts.fps)} fps` : '',
      facts.codec,
      facts.bits ? `${facts.bits} bit` : '',
      facts.read_mm ? `read from ${facts.read_mm.map((mm) => mm.toFixed(2)).join(' × ')} mm` : '',
      facts.pitch_um ? `photosites of ${facts.pitch_um.toFixed(2)} µm` : '',
      facts.timecode,
      facts.reel ? `reel ${facts.reel}` : '',
      facts.seconds ? `${facts.seconds.toFixed(1)} s` : '',
      facts.bytes ? `${(facts.bytes / 1e6).toFixed(1)} MB` : '',
      facts.lens,
      facts.f_number ? `f/${aperture(facts.f_number)}` : '',
      facts.t_stop ? `T${aperture(facts.t_stop)}` : '',
      ...Object.entries(facts.tags).map(([key, value]) => `${key}: ${value}`),
    ]
      .filter(Boolean)
      .join(' · ')

  function dropped(event: DragEvent) {
    event.preventDefault()
    over = false
    const entries = [...(event.dataTransfer?.items ?? [])].map((item) => item.webkitGetAsEntry?.() ?? null)
    void Promise.all(entries.map(walk)).then((found) => onfiles(found.flat()))
  }
  /** All files below a folder that is dropped. */
  async function walk(entry: FileSystemEntry | null): Promise<File[]> {
    if (!entry) return []
    if (entry.isFile)
      return new Promise((done) =>
        (entry as FileSystemFileEntry).file(
          (file) => done([file]),
          () => done([]),
        ),
      )
    const reader = (entry as FileSystemDirectoryEntry).createReader()
    const found: File[] = []
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((done) => reader.readEntries(done, () => done([])))
      if (!some.length) return found
      for (const each of some) found.push(...(await walk(each)))
    }
  }
  function picked(event: Event & { currentTarget: HTMLInputElement }) {
    onfiles([...(event.currentTarget.files ?? [])])
    event.currentTarget.value = ''
  }
</script>

<section
  class="drop"
  class:over
  aria-label="Clips and stills of camera {unit}"
  ondragover={(event) => {
    event.preventDefault()
    over = true
  }}
  ondragleave={() => (over = false)}
  ondrop={dropped}
>
  <p>
    Drop clips, stills, tables or a folder of camera {unit} here, or
    <label class="knob">choose files<input class="sr-only" type="file" multiple onchange={picked} /></label>
    <label class="knob"
      >choose a folder<input class="sr-only" type="file" webkitdirectory multiple onchange={picked} /></label
    >
  </p>
  <p class="soft">
    Of a clip only its first and last bytes go to the server, and only what its head says is saved. Where the
    clips lie,
    <code>./hextan clips FOLDER --production NAME</code> does the same.
  </p>
  {#if reading.busy}
    <p role="status">
      {reading.done} of {reading.all} are read. <button class="knob" onclick={onstop}>Stop</button>
    </p>
  {:else if reading.told}<p role="status">{reading.told}</p>{/if}
  {#each reading.problems.slice(0, 20) as problem, i (i)}<p class="fault">{problem}</p>{/each}
  {#if reading.problems.length > 20}<p class="fault">And {reading.problems.length - 20} more.</p>{/if}
</section>

{#if report.clips.told}<p
    class={report.clips.not_planned ? 'bad' : report.clips.unknown ? 'warn' : 'ok'}
    role="status"
  >
    {report.clips.told}
  </p>{/if}
{#each report.clips.runs as run (run.unit + run.told)}
  <p class="run bad"><strong>{run.unit}</strong> {run.told}</p>
{/each}

{#if clips.length}
  <ul class="clips" aria-label="Clips of the day">
    {#each clips as clip (clip.key)}
      <li>
        <button
          class="row"
          aria-expanded={open === clip.key}
          onclick={() => (open = open === clip.key ? null : clip.key)}
        >
          <span class="figure">{clip.clock}</span>
          <span
            ><strong>{clip.name}</strong>
            <span class="soft">{clip.fits[0] ?? clip.fit_told}</span>
            <span>{clip.take_told || 'no take'}</span></span
          >
          <span
            >{#if clip.differences.length}<span class="bad"
                >{[...new Set(clip.differences.map((d) => d.name.toLowerCase()))].join(', ')}</span
              >{:else if clip.verdict === 'as_planned'}<span class="ok">as planned</span>{:else}<span
                class="warn">not compared</span
              >{/if}</span
          >
        </button>
        {#if open === clip.key}
          <div class="detail">
            {#if clip.fit_told && clip.fits.length}<p class="warn">{clip.fit_told}</p>{/if}
            {#if factsOf(clip)}<p class="soft">It would fit as well: {factsOf(clip)}.</p>{/if}
            <p class="soft">{told(clip)}</p>
            {#if clip.why}<p class="warn">It cannot be compared: {clip.why}.</p>{/if}
            {#if clip.found_by}<p class="soft">
                {clip.take ? 'The take' : 'What it is of'} was found {clip.found_by}.
              </p>{/if}
            {#each clip.differences as d (d.code + d.name)}
              <p>
                <strong class={d.headline ? 'bad' : 'warn'}>{d.name}</strong>
                {d.used}{d.planned ? ` for ${d.planned}` : ''}{d.effects.length
                  ? `: ${d.effects.join(', ')}`
                  : ''}.
              </p>
            {/each}
            {#each clip.against_log as line (line)}<p class="warn">{line}.</p>{/each}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  code {
    padding: 0 3px;
    background: var(--cell);
    color: inherit;
    font-size: 13px;
  }
  .drop {
    display: grid;
    gap: 6px;
    padding: 12px;
    border: 1px dashed var(--line-strong);
  }
  .over {
    background: var(--cell);
  }
  .run {
    font-size: 17px;
  }
  .clips {
    border-top: 1px solid var(--line);
  }
  li {
    border-bottom: 1px solid var(--line);
  }
  .row {
    display: grid;
    grid-template-columns: 4.2em minmax(0, 1fr) minmax(4.5em, auto);
    gap: 8px;
    width: 100%;
    min-height: 44px;
    padding: 5px 2px;
    text-align: left;
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  .row > :last-child {
    max-width: 11em;
    text-align: right;
  }
  .detail {
    display: grid;
    gap: 3px;
    padding: 2px 2px 8px;
  }
</style>
