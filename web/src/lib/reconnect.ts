/** Ask from time to time whether the server is there again. */
const EVERY_MS = 3000

/** Call once when the server answers; gives the way to stop asking. */
export function whenBack(back: () => void, answers: () => Promise<boolean> = there): () => void {
  let over = false
  const timer = setInterval(async () => {
    if ((await answers()) && !over) {
      stop()
      back()
    }
  }, EVERY_MS)
  function stop() {
    over = true
    clearInterval(timer)
  }
  return stop
}

/** Whether the server answers, now. */
export async function there(): Promise<boolean> {
  try {
    const answer = await fetch('/api/v1/health', { cache: 'no-store' })
    // Read to its end: until then the browser counts it as under way.
    await answer.text()
    return answer.ok
  } catch {
    return false
  }
}
