import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

// Client units, beside what they test. Django's runner starts them (tests/test_client_units.py).
export default defineConfig({
  plugins: [react()],
  test: {
    environment: 'jsdom',
    include: ['src/**/*.test.{ts,tsx}'],
    setupFiles: ['src/test/setUp.ts'],
    // One page for all files, since making one takes longer than most of them: setUp.ts clears it between tests.
    isolate: false,
    unstubGlobals: true,
    restoreMocks: true,
  },
})
