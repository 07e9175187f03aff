import { createApp } from 'vue'
import '../shared/tokens.css'
import BasketApp from './BasketApp.vue'
import { begunWith } from '../light/begun'
import { wear } from '../light/face'
import { keptLanguage } from '../light/kept-language'
import { LANGUAGES, speak, type Language } from '../text/sender'
import type { Texts } from '../text/sender/texts'

/** The server sends the texts of one language along; another one was chosen here before, or is loaded where none came. */
async function start() {
  wear()
  const sent = document.documentElement.lang as Language
  const wanted = keptLanguage.find() ?? (sent in LANGUAGES ? sent : 'en')
  await speak(wanted, wanted === sent ? begunWith<Texts>('texts') : undefined)
  const page = location.pathname === '/receipt' ? (await import('./ReceiptCheck.vue')).default : BasketApp
  createApp(page).mount('#app')
  // The page is usable without its typefaces and its last part; on a poor line they come when there is nothing better to do.
  setTimeout(() => void import('./ReceiptView.vue').catch(() => undefined).then(() => import('../shared/fonts')), 0)
}

void start()
