import { readFileSync } from 'node:fs'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

const BASE = '/static/'

// The one place that says which version this is.
const VERSION = readFileSync('../pyproject.toml', 'utf8').match(/^version = "(.+)"/m)?.[1]

/** Tells the service worker what was built: hashed names, which never change what they hold. */
function builtFiles(): Plugin {
  return {
    name: 'built-files',
    generateBundle(_, bundle) {
      const built = Object.keys(bundle).filter((name) => name.startsWith('assets/') && !name.endsWith('.woff'))
      const entries = built.map((name) => ({ url: BASE + name, revision: null }))
      const worker = bundle['sw.js']
      if (worker?.type !== 'chunk') throw new Error('there is no service worker')
      worker.code = worker.code.replaceAll('self.__BUILT_FILES', JSON.stringify(entries))
    },
  }
}

// Django serves what is built here under /static/; hashed names live in assets/. The service worker stands at the root.
export default defineConfig({
  base: BASE,
  define: { 'import.meta.env.VITE_VERSION': JSON.stringify(VERSION) },
  plugins: [react(), builtFiles()],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      input: ['index.html', 'src/sw.ts'],
      output: { entryFileNames: ({ name }) => (name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js') },
    },
  },
})
