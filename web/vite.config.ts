import vue from '@vitejs/plugin-vue'
import { readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig, type Plugin } from 'vite'
import * as pickup from './src/text/pickup/every.ts'
import * as later from './src/text/sender/later/every.ts'
import { texts as ar } from './src/text/sender/ar.ts'
import { texts as de } from './src/text/sender/de.ts'
import { en } from './src/text/sender/en.ts'
import { texts as es } from './src/text/sender/es.ts'
import { texts as fr } from './src/text/sender/fr.ts'
import { texts as pl } from './src/text/sender/pl.ts'

/** The texts of a page as JSON, for the server to send the first language along with the page. */
const textsForTheServer = (folder: string, languages: Record<string, object>): Plugin => ({
  name: 'texts-for-the-server',
  generateBundle() {
    for (const [tag, texts] of Object.entries(languages)) this.emitFile({ type: 'asset', fileName: `${folder}/${tag}.json`, source: JSON.stringify(texts) })
  },
})

/** Has a small script run while the one of the page is still on its way. */
const early: Plugin = {
  name: 'early',
  buildStart() {
    this.emitFile({ type: 'chunk', id: resolve(import.meta.dirname, 'src/light/early.ts'), name: 'early' })
  },
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) => Object.keys(bundle ?? {}).filter((name) => /early-.*\.js$/.test(name)).map((name) => ({ tag: 'script', attrs: { type: 'module', async: true, crossorigin: true, src: `/${name}` }, injectTo: 'head-prepend' })),
  },
}

/** The pages for strangers, each with its texts; those that come later only so that they can be checked. */
const LIGHT: Record<string, Plugin[]> = {
  basket: [textsForTheServer('texts', { ar, de, en, es, fr, pl }), textsForTheServer('later-texts', { ...later })],
  pickup: [textsForTheServer('pickup-texts', { ...pickup })],
}

/** Beside each script and style the same in Brotli, which the server hands to browsers that take it: on a poor line each kilobyte is to be waited for. */
const inBrotli: Plugin = {
  name: 'in-brotli',
  writeBundle({ dir }, bundle) {
    for (const name of Object.keys(bundle).filter((one) => /\.(js|mjs|css)$/.test(one))) writeFileSync(resolve(dir!, `${name}.br`), brotliCompressSync(readFileSync(resolve(dir!, name))))
  },
}

/** Each page for strangers is built by itself, so that nothing which only the desk needs comes with it. */
export default defineConfig(({ mode }) => ({
  // Each part of Element Plus comes with its style where a template names it, and nothing else of it.
  plugins: [inBrotli, ...(LIGHT[mode] ? [...LIGHT[mode], early] : []), vue(), components({ dirs: [], dts: false, resolvers: [ElementPlusResolver({ importStyle: 'css' })] })],
  define: { __VUE_OPTIONS_API__: LIGHT[mode] ? 'false' : 'true', __VUE_PROD_DEVTOOLS__: 'false', __VUE_I18N_LEGACY_API__: 'false', __VUE_I18N_FULL_INSTALL__: 'false', __INTLIFY_PROD_DEVTOOLS__: 'false', __INTLIFY_DROP_MESSAGE_COMPILER__: 'false' },
  build: {
    outDir: 'dist',
    emptyOutDir: !LIGHT[mode],
    // The content security policy allows no data: fonts or scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: resolve(import.meta.dirname, LIGHT[mode] ? `${mode}.html` : 'desk.html'),
      // What a page for strangers begins with is one script: each more has a head of its own to be waited for, and is compressed less well.
      output: LIGHT[mode] ? { codeSplitting: { groups: [{ name: mode, tags: ['$initial'], test: /^(?!.*\/early\.ts$)/ }] } } : {},
    },
  },
  server: { proxy: { '/api': 'http://localhost:8080' } },
}))
