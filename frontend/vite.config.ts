import vue from '@vitejs/plugin-vue'
import ElementPlus from 'unplugin-element-plus/vite'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

const STATEFUL = 'src/{api,composables}/**/*.test.ts'

// The built files are served by the application under /static/app/; see src/finetally/web/pages.py.
export default defineConfig(({ command }) => ({
  base: command === 'build' ? '/static/app/' : '/',
  plugins: [
    vue(),
    ElementPlus({}),
    // The shell on the device (src/sw.ts). Served at /sw.js, as its reach is the whole address; see src/finetally/web/pages.py.
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      registerType: 'prompt',
      injectRegister: null,
      manifest: false,
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,woff2,png}'],
        modifyURLPrefix: { '': '/static/app/' },
        maximumFileSizeToCacheInBytes: 3_000_000,
      },
    }),
  ],
  // Of vue-i18n messages and nothing else: they are functions (src/words/texts/texts.ts), and need no compiler.
  define: {
    __VUE_I18N_FULL_INSTALL__: false,
    __VUE_I18N_LEGACY_API__: false,
    __INTLIFY_PROD_DEVTOOLS__: false,
    __INTLIFY_DROP_MESSAGE_COMPILER__: true,
  },
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: {
    outDir: '../src/finetally/web/static/app',
    emptyOutDir: true,
    target: 'es2022',
    // The first script holds the Bench; its size as it is sent is bounded by tests/browser/test_opening.py.
    chunkSizeWarningLimit: 700,
  },
  server: {
    proxy: { '/api': process.env.FINE_TALLY_API ?? 'http://127.0.0.1:8421' },
  },
  test: {
    environment: 'node',
    pool: 'threads',
    setupFiles: ['src/testing/setup.ts'],
    // What keeps state for the whole page is tested on a page of its own; the rest shares one, a quarter of the time.
    projects: [
      { extends: true, test: { name: 'state', include: [STATEFUL] } },
      { extends: true, test: { name: 'pure', include: ['src/**/*.test.ts'], exclude: [STATEFUL], isolate: false } },
    ],
  },
}))
