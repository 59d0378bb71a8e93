import '@testing-library/jest-dom/vitest'

// jsdom has no ResizeObserver; the drawings measure themselves with it.
class NoResizeObserver implements ResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver = NoResizeObserver
