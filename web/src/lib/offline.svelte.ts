/** The service worker: the page works without a line, and says when a newer version is there. It never reloads by itself. */
class NewVersion {
  there = $state(false)
  load: () => void = () => location.reload()
}

export const newVersion = new NewVersion()

/** Register the service worker; where there is none, the page works as before. */
export async function keepOffline() {
  if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return
  const { registerSW } = await import('virtual:pwa-register')
  const update = registerSW({ onNeedRefresh: () => (newVersion.there = true) })
  newVersion.load = () => void update(true)
}
