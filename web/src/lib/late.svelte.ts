/** Questions whose answers are overdue: what a view shows meanwhile is of the settings before. */
class Late {
  count = $state(0)
}

export const late = new Late()
