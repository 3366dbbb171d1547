import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { port: 7081, proxy: { '/api': 'http://127.0.0.1:7080' } },
  build: { target: 'es2022', assetsInlineLimit: 0, modulePreload: { polyfill: false } },
})
