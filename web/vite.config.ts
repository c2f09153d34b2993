import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: { outDir: '../src/ausblick/web/static', emptyOutDir: true, assetsInlineLimit: 0, target: 'es2022' },
  server: { proxy: { '/api': 'http://127.0.0.1:8642' } },
})
