<script lang="ts">
  import { count, money } from '../../lib/packing'
  import type { KitAnswer } from '../../lib/types'

  interface Props {
    kit: KitAnswer
  }
  let { kit }: Props = $props()
  const each = $derived(kit.shots_done ? kit.cost / kit.shots_done : null)
</script>

<section class="panel" aria-label="Rent or buy">
  <h2>Rent or buy</h2>
  {#if kit.rent.length}
    <p>
      <span class="figure accent">{money(kit.cost, kit.currency)}</span> for {count(
        kit.hire_days,
        'day',
      )}{#if each !== null},
        <span class="figure">{money(Math.round(each * 100) / 100, kit.currency)}</span> a shot{/if}
      {#if kit.cost_unknown.length}<span class="warn"
          >without {kit.cost_unknown.join(', ')}, which have no price</span
        >{/if}
    </p>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="wide" role="group" tabindex="0" aria-label="Prices">
      <table class="figures">
        <thead
          ><tr
            ><th scope="col">Thing</th><th scope="col" class="right">a day</th><th scope="col" class="right"
              >{count(kit.hire_days, 'day')}</th
            ><th scope="col" class="right">to buy</th><th scope="col">pays</th></tr
          ></thead
        >
        <tbody>
          {#each kit.rent as row (`${row.kind}${row.name}`)}
            <tr>
              <th scope="row"
                >{row.name}{row.count > 1 ? ` ×${row.count}` : ''}{#if row.only_for}<span class="warn only">
                    for {row.only_for} alone</span
                  >{/if}</th
              >
              <td class="figure right">{row.owned ? '' : money(row.per_day, '')}</td>
              <td class="figure right">{row.owned ? 'owned' : money(row.cost, '')}</td>
              <td class="figure right">{row.to_buy === null ? '' : money(row.to_buy, '')}</td>
              <td class="soft">{row.pays_after === null ? '' : `from day ${row.pays_after}`}</td>
            </tr>
            {#if row.instead}<tr class="instead"
                ><td class="soft" colspan="5"><div class="told">{row.instead}</div></td></tr
              >{/if}
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="soft">No prices are stated: write them under Things and prices.</p>
  {/if}
</section>

<style>
  h2 {
    font-size: 15px;
  }
  .panel {
    font-size: 14px;
  }
  .only {
    margin-left: 0.4rem;
  }
  .right {
    text-align: right;
  }
  .told {
    padding-left: 1rem;
    max-width: min(60rem, calc(100vw - 2.5rem));
    white-space: normal;
    line-height: 1.25;
  }
  .figures :is(th, td) {
    vertical-align: top;
  }
  tr:has(+ .instead) > * {
    border-bottom-color: transparent;
  }
</style>
