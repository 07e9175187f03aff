import vue from '@vitejs/plugin-vue'
import { resolve } from 'node:path'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

/** The page of senders is built by itself, so that nothing which only the desk needs comes with it. */
export default defineConfig(({ mode }) => ({
  // Each part of Element Plus comes with its style where a template names it, and nothing else of it.
  plugins: [vue(), components({ dirs: [], dts: false, resolvers: [ElementPlusResolver({ importStyle: 'css' })] })],
  define: { __VUE_OPTIONS_API__: mode === 'basket' ? 'false' : 'true', __VUE_PROD_DEVTOOLS__: 'false', __VUE_I18N_LEGACY_API__: 'false', __VUE_I18N_FULL_INSTALL__: 'false', __INTLIFY_PROD_DEVTOOLS__: 'false' },
  build: {
    outDir: 'dist',
    emptyOutDir: mode !== 'basket',
    // The content security policy allows no data: fonts or scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: resolve(import.meta.dirname, mode === 'basket' ? 'basket.html' : 'desk.html'),
    },
  },
  server: { proxy: { '/api': 'http://localhost:8080' } },
}))
