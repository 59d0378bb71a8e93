/** Which view the address names. Views change the query themselves; the path is changed here alone. */
export interface Place {
  productionId: number | null
  view: 'bench' | 'package' | 'compare'
  /** What follows in the path, such as `bodies/3`. */
  rest: string[]
}

export function placeOf(path: string): Place {
  const [, id, view, rest] = /^\/p\/(\d+)(?:\/(bench|package|compare)(?:\/(.*))?)?\/?$/.exec(path) ?? []
  return {
    productionId: id ? Number(id) : null,
    view: view === 'package' || view === 'compare' ? view : 'bench',
    rest: rest ? rest.split('/').filter(Boolean) : [],
  }
}

class Router {
  path = $state(location.pathname)
  place = $derived(placeOf(this.path))

  constructor() {
    addEventListener('popstate', () => (this.path = location.pathname))
  }

  go(path: string, replace = false) {
    if (replace) history.replaceState(null, '', path)
    else history.pushState(null, '', path)
    this.path = location.pathname
  }

  /** Follow a link of our own without loading the page anew. */
  follow(event: MouseEvent) {
    const link = event.target instanceof Element ? event.target.closest('a') : null
    const plain = event.button === 0 && !event.ctrlKey && !event.metaKey && !event.shiftKey && !event.altKey
    if (!link || !plain || link.origin !== location.origin || link.hasAttribute('download')) return
    if (link.pathname !== '/' && !link.pathname.startsWith('/p/')) return
    event.preventDefault()
    this.go(link.pathname + link.search)
  }
}

export const router = new Router()
