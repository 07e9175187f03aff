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
    { path: '/rounds/:id(\\d+)/review', name: 'review', component: () => import('./views/review/ReviewView.vue'), meta: { title: text.review.list } },
    { path: '/rounds/:id(\\d+)/change', name: 'change', component: () => import('./views/change/ChangeView.vue'), meta: { title: text.change.title } },
    { path: '/rounds/:id(\\d+)/again', name: 'again', component: () => import('./views/series/SeriesView.vue'), meta: { title: text.series.title } },
    { path: '/rounds/:id(\\d+)/status', name: 'status', component: () => import('./views/status/StatusView.vue'), meta: { title: text.status.title } },
    { path: '/rounds/series/:id(\\d+)', name: 'series', component: () => import('./views/series/SeriesView.vue'), meta: { title: text.series.title } },
    { path: '/contacts', name: 'contacts', component: () => import('./views/contacts/ContactsView.vue'), meta: { title: text.contacts.title } },
    { path: '/contacts/new', name: 'new-contact', component: () => import('./views/contacts/ContactView.vue'), meta: { title: text.contacts.newTitle } },
    { path: '/contacts/import', name: 'import', component: () => import('./views/contacts/ImportView.vue'), meta: { title: text.importing.title } },
    { path: '/contacts/twice', name: 'twice', component: () => import('./views/contacts/TwiceView.vue'), meta: { title: text.contacts.twiceTitle } },
    { path: '/contacts/:id(\\d+)', name: 'contact', component: () => import('./views/contacts/ContactView.vue'), meta: { title: text.contacts.title } },
    { path: '/post', name: 'post', component: () => import('./views/post/PostView.vue'), meta: { title: text.post.title } },
    { path: '/setup', name: 'setup', component: () => import('./views/setup/SetupView.vue'), meta: { title: text.setup.title } },
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
