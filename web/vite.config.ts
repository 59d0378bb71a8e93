import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { svelteTesting } from '@testing-library/svelte/vite'
import { defineConfig } from 'vitest/config'
import { fonts } from './fonts/cut.ts'

export default defineConfig({
  plugins: [fonts(), tailwindcss(), svelte(), svelteTesting()],
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8734' } },
  test: { environment: 'jsdom', setupFiles: ['./src/test-setup.ts'], testTimeout: 20_000 },
})
