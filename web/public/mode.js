// Sets dark or light before the first paint; a file of its own, because the page allows no inline script.
;(() => {
  let kept = null
  try {
    kept = localStorage.getItem('hextan.mode')
  } catch {
    // Storage may be switched off: then the system's wish decides.
  }
  const light = matchMedia('(prefers-color-scheme: light)').matches
  document.documentElement.dataset.mode = kept ?? (light ? 'light' : 'dark')
})()
