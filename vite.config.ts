import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  build: {
    // Everything comes from our own address, also fonts: no data URLs for the policy to allow.
    assetsInlineLimit: 0,
    target: 'es2023',
    // The first load is measured on its own, compressed (scripts/size.mjs).
    chunkSizeWarningLimit: 1000,
  },
  worker: { format: 'es' },
})
