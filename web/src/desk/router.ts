import { createRouter, createWebHistory } from 'vue-router'
import { text } from '../text/desk'
import { session, loadSession } from './use-session'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'today', component: () => import('./views/today/TodayView.vue'), meta: { title: text.tabs.today } },
    { path: '/sign-in', name: 'sign-in', component: () => import('./views/signin/SignInView.vue'), meta: { title: text.signin.button, open: true } },
    { path: '/rounds', name: 'rounds', component: () => import('./views/rounds/RoundsView.vue'), meta: { title: text.rounds.title } },
    { path: '/rounds/new', name: 'compose', component: () => import('./views/compose/ComposeView.vue'), meta: { title: text.compose.newTitle } },
    { path: '/rounds/:id(\\d+)/sheet', name: 'sheet', component: () => import('./views/compose/ComposeView.vue'), meta: { title: text.compose.newTitle } },
    { path: '/rounds/:id(\\d+)', name: 'round', component: () => import('./views/round/RoundView.vue'), meta: { title: text.rounds.round } },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.beforeEach(async (to) => {
  if (!session.value) await loadSession()
  if (!to.meta.open && !session.value?.signedIn) return { name: 'sign-in', query: to.fullPath === '/' ? {} : { to: to.fullPath } }
  if (to.name === 'sign-in' && session.value?.signedIn) return '/'
  return true
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title ?? '')} – ${text.product}`
})
