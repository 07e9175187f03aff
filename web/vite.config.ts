import vue from '@vitejs/plugin-vue'
import { resolve } from 'node:path'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  // Each part of Element Plus comes with its style where a template names it, and nothing else of it.
  plugins: [vue(), components({ dirs: [], dts: false, resolvers: [ElementPlusResolver({ importStyle: 'css' })] })],
  define: { __VUE_OPTIONS_API__: 'true', __VUE_PROD_DEVTOOLS__: 'false', __VUE_I18N_LEGACY_API__: 'false', __VUE_I18N_FULL_INSTALL__: 'false', __INTLIFY_PROD_DEVTOOLS__: 'false' },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    // The content security policy allows no data: fonts or scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: { desk: resolve(import.meta.dirname, 'desk.html'), basket: resolve(import.meta.dirname, 'basket.html') },
    },
  },
  server: { proxy: { '/api': 'http://localhost:8080' } },
})
