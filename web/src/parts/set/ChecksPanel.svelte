<script lang="ts">
  import type { BodyChecks, CheckItem } from '../../lib/types'

  interface Props {
    checks: readonly BodyChecks[]
    /** Points on their way to the server, by body and point: whether they are ticked. */
    waiting: ReadonlyMap<string, boolean>
    ontick: (body: string, item: CheckItem, part: { ticked?: boolean; note?: string }) => void
  }
  let { checks, waiting, ontick }: Props = $props()
  let noting = $state<string | null>(null)
  const stateOf = (body: string, item: CheckItem) => waiting.get(`${body} ${item.key}`) ?? item.ticked
</script>

{#each checks as body (body.body)}
  <section class="panel" aria-label="Checklist of {body.body}">
    <h2>
      {body.body}{body.units.length ? `, camera ${body.units.join(', ')}` : ''}
      <span class="soft">{body.open ? `${body.open} open` : 'all ticked'}</span>
    </h2>
    <ul>
      {#each body.items as item (item.key)}
        <li class:against={item.against}>
          <label
            ><input
              type="checkbox"
              checked={stateOf(body.body, item)}
              onchange={(event) => ontick(body.body, item, { ticked: event.currentTarget.checked })}
            />
            <span
              >{item.told}
              {#if item.more}<span class="soft more">{item.more}</span>{/if}
              {#if item.note}<span class="more">{item.note}</span>{/if}
              {#if item.by || item.clock}<span class="soft more"
                  >{item.ticked ? 'ticked' : 'opened again'} by {item.by || 'somebody'} at {item.clock}</span
                >{/if}
              {#if item.against}<span class="bad more">The camera says: {item.against}</span>{/if}</span
            ></label
          >
          {#if noting === item.key}
            <input
              class="written"
              aria-label="Note on {item.told}"
              maxlength="400"
              value={item.note}
              onchange={(event) => {
                ontick(body.body, item, { note: event.currentTarget.value.trim() })
                noting = null
              }}
            />
          {:else}
            <button class="knob" aria-label="Note on {item.told}" onclick={() => (noting = item.key)}
              >note</button
            >
          {/if}
        </li>
      {/each}
    </ul>
  </section>
{:else}
  <p class="soft">No shot of this day has a camera yet: see Shots.</p>
{/each}

<style>
  h2 {
    font-size: 18px;
  }
  h2 .soft {
    font-size: 14px;
    font-weight: 400;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    gap: 6px;
    border-bottom: 1px solid var(--line);
  }
  label {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr);
    align-items: center;
    min-height: 44px;
    padding: 4px 0;
  }
  label input {
    width: 20px;
    height: 20px;
  }
  .more {
    display: block;
    font-size: 13.5px;
  }
  .against {
    border-left: 3px solid var(--bad);
    padding-left: 6px;
  }
  li .written {
    grid-column: 1 / -1;
  }
</style>
