/** The productions that were opened last in this browser, for the header to switch between. */
interface Visit {
  id: number
  name: string
}

const KEY = 'hextan.recent'
const MOST = 6

function read(): Visit[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]')
    if (!Array.isArray(kept)) return []
    return kept.filter((v): v is Visit => typeof v?.id === 'number' && typeof v?.name === 'string')
  } catch {
    return []
  }
}

class Recent {
  list = $state.raw(read())

  /** A production is opened: it comes first, under the name that it has now. */
  visit(id: number, name: string) {
    const [first] = this.list
    if (first?.id === id && first.name === name) return
    this.#keep([{ id, name }, ...this.list.filter((visit) => visit.id !== id)].slice(0, MOST))
  }

  /** Only what is there can be switched to. */
  among(ids: readonly number[]) {
    const left = this.list.filter((visit) => ids.includes(visit.id))
    if (left.length < this.list.length) this.#keep(left)
  }

  #keep(list: Visit[]) {
    this.list = list
    try {
      localStorage.setItem(KEY, JSON.stringify(list))
    } catch {
      // Kept for this page only.
    }
  }
}

export const recent = new Recent()
