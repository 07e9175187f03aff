import { createRouter, createWebHistory } from 'vue-router'
import { text } from '../text/desk'
import { session, loadSession } from './use-session'

declare module 'vue-router' {
  interface RouteMeta {
    title: () => string
    open?: boolean
  }
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'today', component: () => import('./features/today/TodayView.vue'), meta: { title: () => text.tabs.today } },
    { path: '/sign-in', name: 'sign-in', component: () => import('./features/signin/SignInView.vue'), meta: { title: () => text.signin.button, open: true } },
    { path: '/join', name: 'join', component: () => import('./features/signin/JoinView.vue'), meta: { title: () => text.team.joinTitle, open: true } },
    { path: '/forgotten', name: 'forgotten', component: () => import('./features/signin/ForgottenView.vue'), meta: { title: () => text.team.forgotten, open: true } },
    { path: '/new-password', name: 'new-password', component: () => import('./features/signin/NewPasswordView.vue'), meta: { title: () => text.team.newPassword, open: true } },
    { path: '/rounds', name: 'rounds', component: () => import('./features/rounds/RoundsView.vue'), meta: { title: () => text.rounds.title } },
    { path: '/rounds/new', name: 'compose', component: () => import('./features/compose/ComposeView.vue'), meta: { title: () => text.compose.newTitle } },
    { path: '/rounds/:id(\\d+)/sheet', name: 'sheet', component: () => import('./features/compose/ComposeView.vue'), meta: { title: () => text.compose.newTitle } },
    { path: '/rounds/:id(\\d+)', name: 'round', component: () => import('./features/round/RoundView.vue'), meta: { title: () => text.rounds.round } },
    { path: '/rounds/:id(\\d+)/review', name: 'review', component: () => import('./features/review/ReviewView.vue'), meta: { title: () => text.review.list } },
    { path: '/rounds/:id(\\d+)/change', name: 'change', component: () => import('./features/change/ChangeView.vue'), meta: { title: () => text.change.title } },
    { path: '/rounds/:id(\\d+)/again', name: 'again', component: () => import('./features/series/SeriesView.vue'), meta: { title: () => text.series.title } },
    { path: '/rounds/:id(\\d+)/status', name: 'status', component: () => import('./features/status/StatusView.vue'), meta: { title: () => text.status.title } },
    { path: '/rounds/series/:id(\\d+)', name: 'series', component: () => import('./features/series/SeriesView.vue'), meta: { title: () => text.series.title } },
    { path: '/contacts', name: 'contacts', component: () => import('./features/contacts/ContactsView.vue'), meta: { title: () => text.contacts.title } },
    { path: '/contacts/new', name: 'new-contact', component: () => import('./features/contacts/ContactView.vue'), meta: { title: () => text.contacts.newTitle } },
    { path: '/contacts/import', name: 'import', component: () => import('./features/contacts/ImportView.vue'), meta: { title: () => text.importing.title } },
    { path: '/contacts/twice', name: 'twice', component: () => import('./features/contacts/TwiceView.vue'), meta: { title: () => text.contacts.twiceTitle } },
    { path: '/contacts/:id(\\d+)', name: 'contact', component: () => import('./features/contacts/ContactView.vue'), meta: { title: () => text.contacts.title } },
    { path: '/post', name: 'post', component: () => import('./features/post/PostView.vue'), meta: { title: () => text.post.title } },
    { path: '/post/goes', name: 'goes', component: () => import('./features/post/GoesView.vue'), meta: { title: () => text.goes.title } },
    { path: '/post/inward', name: 'inward', component: () => import('./features/post/InwardView.vue'), meta: { title: () => text.inward.title } },
    { path: '/post-office', name: 'post-office', component: () => import('./features/office/OfficeView.vue'), meta: { title: () => text.office.title } },
    { path: '/links', name: 'links', component: () => import('./features/links/LinksView.vue'), meta: { title: () => text.links.title } },
    { path: '/filing', name: 'filing', component: () => import('./features/filing/RulesView.vue'), meta: { title: () => text.filing.ofOffice } },
    { path: '/rounds/:id(\\d+)/filing', name: 'round-filing', component: () => import('./features/filing/RulesView.vue'), meta: { title: () => text.filing.title } },
    { path: '/tray', name: 'tray', component: () => import('./features/tray/TrayView.vue'), meta: { title: () => text.tray.title } },
    { path: '/folders', name: 'folders', component: () => import('./features/folders/FoldersView.vue'), meta: { title: () => text.folders.title } },
    { path: '/rounds/:id(\\d+)/set', name: 'set', component: () => import('./features/handover/SetView.vue'), meta: { title: () => text.handover.title } },
    { path: '/parcels', name: 'parcels', component: () => import('./features/parcels/ParcelsView.vue'), meta: { title: () => text.parcels.title } },
    { path: '/parcels/:id(\\d+)', name: 'parcel', component: () => import('./features/parcels/ParcelView.vue'), meta: { title: () => text.parcels.title } },
    { path: '/exchanges', name: 'exchanges', component: () => import('./features/exchanges/ExchangesView.vue'), meta: { title: () => text.exchanges.title } },
    { path: '/exchanges/new', name: 'new-exchange', component: () => import('./features/exchanges/NewExchangeView.vue'), meta: { title: () => text.exchanges.make } },
    { path: '/exchanges/:id(\\d+)', name: 'exchange', component: () => import('./features/exchanges/ExchangeView.vue'), meta: { title: () => text.exchanges.title } },
    { path: '/journal', name: 'journal', component: () => import('./features/filing/JournalView.vue'), meta: { title: () => text.journal.title } },
    { path: '/quarantine', name: 'quarantine', component: () => import('./features/quarantine/QuarantineView.vue'), meta: { title: () => text.quarantine.title } },
    { path: '/team', name: 'team', component: () => import('./features/team/TeamView.vue'), meta: { title: () => text.team.title } },
    { path: '/setup/brand', name: 'brand', component: () => import('./features/team/BrandView.vue'), meta: { title: () => text.brand.title } },
    { path: '/audit', name: 'audit', component: () => import('./features/team/AuditView.vue'), meta: { title: () => text.audit.title } },
    { path: '/setup', name: 'setup', component: () => import('./features/setup/SetupView.vue'), meta: { title: () => text.setup.title } },
    { path: '/:rest(.*)*', redirect: '/', meta: { title: () => text.product } },
  ],
})

router.beforeEach(async (to) => {
  if (!session.value) await loadSession()
  if (!to.meta.open && !session.value?.signedIn) return { name: 'sign-in', query: to.fullPath === '/' ? {} : { to: to.fullPath } }
  if (to.name === 'sign-in' && session.value?.signedIn) return '/'
  return true
})

router.afterEach((to) => {
  document.title = `${to.meta.title()} – ${text.product}`
})
