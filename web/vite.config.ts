import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import vuetify from 'vite-plugin-vuetify'

// The server puts a nonce of its own into every answer where this stands.
const NONCE_PLACE = '__NONCE__'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  html: { cspNonce: NONCE_PLACE },
  build: {
    outDir: '../src/Polycline.Web/wwwroot',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  test: { include: ['src/**/*.test.ts'] },
})
