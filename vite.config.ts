import vue from '@vitejs/plugin-vue'
import laravel from 'laravel-vite-plugin'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [laravel({ input: ['resources/js/main.ts'] }), vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('resources/js', import.meta.url)) } },
  build: { chunkSizeWarningLimit: 1200 },
})
