/** Round figures between two bounds on a scale of ratios, at most so many. */
export function logTicks(low: number, high: number, most = 7): number[] {
  const all = (steps: number[]) => {
    const found: number[] = []
    for (let power = Math.floor(Math.log10(low)); power <= Math.log10(high) + 1; power++) {
      for (const step of steps) {
        const at = Number((step * 10 ** power).toPrecision(6))
        if (at >= low * 0.999 && at <= high * 1.001) found.push(at)
      }
    }
    return found
  }
  for (const steps of [[1, 1.5, 2, 3, 4, 5, 6, 8], [1, 2, 3, 5], [1, 2, 5], [1, 3], [1]]) {
    const found = all(steps)
    if (found.length <= most) return found
  }
  return all([1]).filter((_, i) => i % 2 === 0)
}
