/** What the keyboard does with the rows of a grid. */
export interface RowActs {
  add: () => void
  move: (by: number) => void
  delete: () => void
}

export function rowKeys(event: KeyboardEvent, acts: RowActs) {
  if (!event.altKey) return
  const run = {
    ArrowUp: () => acts.move(-1),
    ArrowDown: () => acts.move(1),
    Enter: acts.add,
    Delete: acts.delete,
  }[event.key]
  if (!run) return
  event.preventDefault()
  run()
}
