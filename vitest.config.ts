import vue from '@vitejs/plugin-vue'
import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const all = readdirSync('resources/js', { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.test.ts'))
  .map((name) => `resources/js/${name}`)
// What replaces a module needs one of its own; all others share theirs, for loading it takes longer than the tests do.
const replacing = all.filter((name) => readFileSync(name, 'utf8').includes('vi.mock('))

// A busy machine is no defect: what hangs is ended all the same.
const shared = { environment: 'jsdom', setupFiles: ['resources/js/testing/setup.ts'], testTimeout: 60_000, hookTimeout: 60_000 }

// The tests have their own settings because the plugin that serves pages while one develops refuses to start where CI is set.
export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('resources/js', import.meta.url)) } },
  test: {
    projects: [
      { extends: true, test: { name: 'shared', include: all.filter((name) => !replacing.includes(name)), isolate: false, ...shared } },
      { extends: true, test: { name: 'replacing', include: replacing, ...shared } },
    ],
  },
})
