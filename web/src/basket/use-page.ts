import { computed, ref } from 'vue'
import { call } from '../api/http'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'

export type Page = components['schemas']['Page']
export type PageItem = components['schemas']['PageItem']

/** The page behind the link in the address: loading it, and the passcode that may stand before it. */
export function usePage() {
  const rehearsal = location.pathname.startsWith('/rehearsal/')
  const token = decodeURIComponent(location.pathname.split('/')[2] ?? '')
  const page = ref<Page>()
  const problem = ref<ApiProblem>()
  const ticket = ref('')
  const headers = computed<Record<string, string>>(() => ({ 'Oak-Link': token, ...(ticket.value ? { 'Oak-Ticket': ticket.value } : {}) }))
  const passcodeNeeded = computed(() => problem.value?.code === 'link-passcode-needed')

  async function load() {
    try {
      page.value = rehearsal
        ? await call<Page>('GET', `/api/rounds/${encodeURIComponent(token)}/rehearsal`)
        : await call<Page>('GET', '/api/basket', undefined, headers.value)
      problem.value = undefined
      document.title = `${page.value.title} – ${page.value.office}`
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** Throws the problem of a wrong passcode; the page loads when it is right. */
  async function unlock(passcode: string) {
    ticket.value = (await call<{ ticket: string }>('POST', '/api/basket/passcode', { passcode }, headers.value)).ticket
    await load()
  }

  return { rehearsal, page, problem, headers, passcodeNeeded, load, unlock }
}
