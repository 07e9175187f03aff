import { createApp } from 'vue'
import '../shared/tokens.css'
import { begunWith } from '../light/begun'
import { wear } from '../light/face'
import { keptLanguage } from '../light/kept-language'
import { speak } from '../text/pickup'
import type { Texts } from '../text/pickup/texts'
import { LANGUAGES, type Language } from '../text/speaking'
import PickUpApp from './PickUpApp.vue'

/** The server sends the texts of one language along; another one was chosen here before, or is loaded where none came. */
async function start() {
  wear()
  const sent = document.documentElement.lang as Language
  const wanted = keptLanguage.find() ?? (sent in LANGUAGES ? sent : 'en')
  await speak(wanted, wanted === sent ? begunWith<Texts>('texts') : undefined)
  createApp(PickUpApp).mount('#app')
  // The page is usable without its typefaces; on a poor line they come when there is nothing better to do.
  setTimeout(() => void import('../shared/fonts'), 0)
}

void start()
