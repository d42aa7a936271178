import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

// The tests have their own settings because the plugin that serves pages while one develops refuses to start where CI is set.
export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('resources/js', import.meta.url)) } },
})
