import { computed, ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'

export type Page = components['schemas']['Page']
export type PageItem = components['schemas']['PageItem']

/** The last part of the address that is not empty; what cannot be decoded stays as it is, and is then no link. */
function segment(path: string): string {
  const raw = path.split('/').filter(Boolean)[1] ?? ''
  try {
    return decodeURIComponent(raw)
  } catch {
    return raw
  }
}

/** The page behind the link in the address: loading it, and the passcode that may stand before it. */
export function usePage() {
  const rehearsal = location.pathname.startsWith('/rehearsal/')
  const token = segment(location.pathname)
  const page = ref<Page>()
  const problem = ref<ApiProblem>()
  const ticket = ref('')
  const headers = computed<Record<string, string>>(() => ({ 'Oak-Link': token, ...(ticket.value ? { 'Oak-Ticket': ticket.value } : {}) }))
  const passcodeNeeded = computed(() => problem.value?.code === 'link-passcode-needed')

  async function load() {
    try {
      page.value = rehearsal
        ? await light('get', '/api/rounds/{id}/rehearsal', { id: token })
        : await light('get', '/api/basket', { headers: headers.value })
      problem.value = undefined
      document.title = `${page.value.title} – ${page.value.office}`
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** Throws the problem of a wrong passcode; the page loads when it is right. */
  async function unlock(passcode: string) {
    ticket.value = (await light('post', '/api/basket/passcode', { body: { passcode }, headers: headers.value })).ticket
    await load()
  }

  /** Saves the blank form of an item. Throws when it does not come. */
  async function takeForm(item: PageItem) {
    const path = rehearsal ? `/api/rounds/${encodeURIComponent(token)}/rehearsal/forms/${item.number}` : `/api/basket/forms/${item.number}`
    const response = await fetch(path, { headers: headers.value })
    if (!response.ok) throw ApiProblem.read(response.status, await response.text())
    const url = URL.createObjectURL(await response.blob())
    const anchor = document.createElement('a')
    anchor.href = url
    anchor.download = item.form ?? 'form'
    anchor.click()
    setTimeout(() => URL.revokeObjectURL(url), 60_000)
  }

  return { rehearsal, page, problem, headers, passcodeNeeded, load, unlock, takeForm }
}
