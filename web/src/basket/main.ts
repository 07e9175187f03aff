import { createApp } from 'vue'
import '../shared/tokens.css'
import BasketApp from './BasketApp.vue'
import { begunWith } from '../light/begun'
import { wear } from '../light/face'
import { keptLanguage } from '../light/kept-language'
import { LANGUAGES, speak, speakLater, type Language } from '../text/sender'
import type { Texts } from '../text/sender/texts'

/** The page is usable without its typefaces, and without what is needed only once something is sent; on a poor line they come when there is nothing better to do. What does not come is asked for again where it is needed. */
async function loadTheRest() {
  for (const part of [() => import('./send-files'), speakLater, () => import('./ReceiptView.vue'), () => import('../shared/fonts')]) await part().catch(() => undefined)
}

/** The page on which a receipt is checked. */
async function loadCheck() {
  const [check] = await Promise.all([import('./ReceiptCheck.vue'), speakLater()])
  return check.default
}

/** The server sends the texts of one language along; another one was chosen here before, or is loaded where none came. */
async function start() {
  wear()
  const sent = document.documentElement.lang as Language
  const wanted = keptLanguage.find() ?? (sent in LANGUAGES ? sent : 'en')
  await speak(wanted, wanted === sent ? begunWith<Texts>('texts') : undefined)
  const page = location.pathname === '/receipt' ? await loadCheck() : BasketApp
  createApp(page).mount('#app')
  setTimeout(() => void loadTheRest(), 0)
}

void start()
