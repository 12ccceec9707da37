import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// Django serves what is built here under /static/; hashed names live in assets/.
export default defineConfig({
  base: '/static/',
  plugins: [react()],
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
})
