import '@testing-library/jest-dom/vitest'

// jsdom has no ResizeObserver; the drawings measure themselves with it.
class NoResizeObserver implements ResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver = NoResizeObserver

// jsdom has no media queries: nothing matches.
window.matchMedia ??= (media) =>
  Object.assign(new EventTarget(), {
    media,
    matches: false,
    onchange: null,
    addListener: () => {},
    removeListener: () => {},
  })

// jsdom lays nothing out: there is nothing to scroll to.
if (typeof Element !== 'undefined') Element.prototype.scrollIntoView ??= () => {}
