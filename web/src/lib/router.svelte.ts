import { SECTIONS, VIEWS, type ViewName } from './views'

/** Which view the address names. Views change the query themselves; the path is changed here alone. */
export interface Place<N extends string = ViewName> {
  productionId: number | null
  /** `productions` is the page before any of them is opened. */
  view: N | 'bench' | 'productions'
  /** What follows in the path, such as `bodies/3`. */
  rest: string[]
  /** Whether the path is none of ours. */
  unknown: boolean
}

export function placeOf(path: string): Place
export function placeOf<N extends string>(path: string, views: readonly { name: N }[]): Place<N>
export function placeOf(path: string, views: readonly { name: string }[] = VIEWS): Place<string> {
  const names = views.map((row) => row.name)
  const form = new RegExp(`^/p/(\\d+)(?:/(${names.join('|')})(?:/(.*))?)?/?$`)
  const [found, id, view, rest] = form.exec(path) ?? []
  return {
    productionId: id ? Number(id) : null,
    view: path === '/' ? 'productions' : (view ?? 'bench'),
    rest: rest ? rest.split('/').filter(Boolean) : [],
    unknown: path !== '/' && found === undefined,
  }
}

type Section = (typeof SECTIONS)[number]['name']

/** The one maker of addresses: of a view, a section of the package, a document in it. */
export function pathTo(productionId: number, view: ViewName, document?: number | null): string
export function pathTo(
  productionId: number,
  view: 'package',
  section: Section,
  document?: number | 'new' | null,
): string
export function pathTo(productionId: number, ...parts: (string | number | null | undefined)[]): string {
  return ['/p', productionId, ...parts.filter((part) => part != null)].join('/')
}

class Router {
  path = $state(location.pathname)
  place = $derived(placeOf(this.path))
  /** Whether what is shown was gone to from here, so that the focus may go there as well. */
  arrived = false
  /** Grows with each address that is gone to and differs from the one before it in its query alone. */
  queries = $state(0)

  constructor() {
    addEventListener('popstate', () => {
      this.arrived = true
      this.path = location.pathname
    })
  }

  go(path: string, replace = false) {
    const elsewhere = path.split('?')[0] !== location.pathname
    if (replace) history.replaceState(null, '', path)
    else history.pushState(null, '', path)
    this.arrived = true
    this.path = location.pathname
    if (!elsewhere && !replace) this.queries += 1
    if (elsewhere && !replace) scrollTo(0, 0)
  }

  /** Follow a link of our own without loading the page anew. */
  follow(event: MouseEvent) {
    const link = event.target instanceof Element ? event.target.closest('a') : null
    const plain = event.button === 0 && !event.ctrlKey && !event.metaKey && !event.shiftKey && !event.altKey
    if (!link || !plain || link.origin !== location.origin || link.hasAttribute('download')) return
    if (link.pathname !== '/' && !link.pathname.startsWith('/p/')) return
    // A place on this page is the browser's.
    if (link.hash && link.pathname === location.pathname) return
    event.preventDefault()
    this.go(link.pathname + link.search)
  }
}

export const router = new Router()
