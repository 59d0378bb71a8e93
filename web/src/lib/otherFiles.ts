/** Files of a production that are had on other pages, each with where. */
import * as client from './client'
import { pathTo } from './router.svelte'

export const otherFiles = (id: number) => [
  {
    title: 'The whole production, JSON',
    carries: 'Everything that is entered: exact.',
    lost: 'Nothing.',
    back: 'As a production of its own, on the page of productions.',
    href: client.productionFileAddress(id, false),
    name: 'Save',
  },
  {
    title: 'Shots: CSV, XLSX, ODS, OpenTimelineIO, edit list',
    carries: 'Every cell as it was typed; the answers behind them. An edit list: numbers, reels, comments.',
    lost: 'Of a timeline what stands beside its clips.',
    back: 'Into the list: what would change is told first.',
    href: pathTo(id, 'shots'),
    name: 'Shots',
  },
  {
    title: 'Bodies and lens sets: JSON, CSV, ASC FDL',
    carries: 'As the file says: JSON all, CSV rows, FDL canvases and framings.',
    lost: 'Of an FDL what stands in no canvas.',
    back: 'Into the Package.',
    href: pathTo(id, 'package', 'bodies'),
    name: 'Package',
  },
]
