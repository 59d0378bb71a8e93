import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { svelteTesting } from '@testing-library/svelte/vite'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'
import { fonts } from './fonts/cut.ts'
import { packed } from './packed.ts'

/**
 * What the page needs without a line: its own files are kept beforehand, and every answer of the server that was asked for
 * by an address is kept as it was last, for a month at most. What is new comes first, as long as the server answers within seconds. Streams, files,
 * whether the server is well, and what cameras are asked with are never kept. `lib/kept.ts` forgets a production that was removed.
 */
const offline = () =>
  VitePWA({
    strategies: 'generateSW',
    registerType: 'prompt',
    injectRegister: false,
    manifest: {
      name: 'Hextan',
      short_name: 'Hextan',
      description: 'Plans lenses against the scan modes of cinema cameras.',
      start_url: '/',
      display: 'standalone',
      background_color: '#0b2239',
      theme_color: '#0b2239',
      icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
    },
    workbox: {
      inlineWorkboxRuntime: true,
      cleanupOutdatedCaches: true,
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/api\//],
      globPatterns: ['**/*.{js,css,html,svg,woff2}'],
      runtimeCaching: [
        {
          urlPattern: ({ url, request }) =>
            request.method === 'GET' &&
            /^\/api\/v1\/productions(\/|$)/.test(url.pathname) &&
            !/\/(live|files|file|handover|prints|searches)(\/|$)|\/set\/settings$/.test(url.pathname),
          handler: 'NetworkFirst',
          options: {
            cacheName: 'hextan-day-1',
            networkTimeoutSeconds: 10,
            cacheableResponse: { statuses: [200] },
            expiration: { maxEntries: 600, maxAgeSeconds: 30 * 24 * 3600 },
          },
        },
      ],
    },
  })

/** Tests that need no page; those that do say so in their names. */
const PLAIN = ['src/**/!(*.svelte|*.page).test.ts']
/** Tests that put another module in the place of one: each has the modules to itself. */
const APART = ['src/**/*.apart.svelte.test.ts']
const PAGE = { environment: 'jsdom', setupFiles: ['./src/test-setup.ts'] }

export default defineConfig({
  plugins: [fonts(), tailwindcss(), svelte(), svelteTesting(), offline(), packed()],
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8734' } },
  test: {
    testTimeout: 20_000,
    projects: [
      {
        // Rules and words: no page is made for them, and all run in the same threads.
        extends: true,
        test: { name: 'plain', environment: 'node', include: PLAIN, isolate: false, pool: 'threads' },
      },
      {
        extends: true,
        test: {
          ...PAGE,
          name: 'page',
          include: ['src/**/*.test.ts'],
          exclude: [...PLAIN, ...APART],
          isolate: false,
          pool: 'threads',
        },
      },
      { extends: true, test: { ...PAGE, name: 'apart', include: APART } },
    ],
  },
})
