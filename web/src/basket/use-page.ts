import { computed, ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import { language, text } from '../text/sender'
import { begunWith, sentLanguage } from '../light/begun'

export type Page = components['schemas']['Page']
export type PageItem = components['schemas']['PageItem']
export type ExchangePlace = components['schemas']['ExchangePlace']
export type PlaceFile = components['schemas']['PlaceFile']

interface Begin {
  page: Page | null
  problem: { status: number } | null
}

/** The last part of the address that is not empty; what cannot be decoded stays as it is, and is then no link. */
function lastSegment(path: string): string {
  const raw = path.split('/').filter(Boolean).slice(1).pop() ?? ''
  try {
    return decodeURIComponent(raw)
  } catch {
    return raw
  }
}

/** The ticket of a passcode lasts as long as the window, also over a reload. */
function keptTicket(token: string) {
  const name = `oak-basket ticket ${token}`
  try {
    return { find: () => sessionStorage.getItem(name) ?? '', keep: (ticket: string) => sessionStorage.setItem(name, ticket) }
  } catch {
    return { find: () => '', keep: () => {} }
  }
}

/** The page behind the link in the address: it comes with the HTML, or is loaded; and the passcode that may stand before it. */
export function usePage() {
  const rehearsal = location.pathname.startsWith('/rehearsal/')
  const token = lastSegment(location.pathname)
  const tickets = keptTicket(token)
  const page = ref<Page>()
  const problem = ref<ApiProblem>()
  const ticket = ref(tickets.find())
  const headers = computed<Record<string, string>>(() => ({ 'Oak-Link': token, 'Accept-Language': language.value, ...(ticket.value ? { 'Oak-Ticket': ticket.value } : {}) }))
  const passcodeNeeded = computed(() => problem.value?.code === 'link-passcode-needed')

  /** @param submission the key of a sending under way, for which a link that is used up goes on */
  async function load(submission = '') {
    try {
      page.value = rehearsal
        ? await light('get', '/api/rounds/{id}/rehearsal', { id: token })
        : await light('get', '/api/basket', { headers: { ...headers.value, ...(submission ? { 'Oak-Submission': submission } : {}) } })
      problem.value = undefined
      seen()
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** Begins with what came along, where that is all there is to say. */
  async function begin(submission: string) {
    const came = begunWith<Begin>('begin')
    if (came?.page) {
      page.value = came.page
      return seen()
    }
    // Whoever chose another language here before reads a refusal in that one.
    if (came?.problem && language.value === sentLanguage && !ticket.value && !submission) {
      problem.value = ApiProblem.read(came.problem.status, JSON.stringify(came.problem))
      return
    }
    await load(submission)
  }

  /** Somebody looks at the page; whether that was heard changes nothing for them. */
  function seen() {
    document.title = `${page.value!.title} – ${page.value!.office}`
    if (!rehearsal) void light('post', '/api/basket/seen', { headers: headers.value }).catch(() => {})
  }

  /** Throws the problem of a wrong passcode; the page loads when it is right. */
  async function unlock(passcode: string) {
    ticket.value = (await light('post', '/api/basket/passcode', { body: { passcode }, headers: headers.value })).ticket
    tickets.keep(ticket.value)
    await load()
  }

  /** Saves the blank form of an item. Throws when it does not come. */
  async function takeForm(item: PageItem) {
    const path = rehearsal ? `/api/rounds/${encodeURIComponent(token)}/rehearsal/forms/${item.number}` : `/api/basket/forms/${item.number}`
    const response = await fetch(path, { headers: headers.value })
    if (!response.ok) throw ApiProblem.read(response.status, await response.text())
    saveFile(await response.blob(), item.form ?? text.takeForm(''))
  }

  /** Whether the page has changed since it came. */
  async function changed(submission: string): Promise<boolean> {
    const { mark } = await light('get', '/api/basket/mark', { headers: { ...headers.value, ...(submission ? { 'Oak-Submission': submission } : {}) } })
    return mark !== page.value?.mark
  }

  return { changed, rehearsal, token, page, problem, headers, passcodeNeeded, begin, load, unlock, takeForm }
}

/** Hands a file to the browser to be saved. */
export function saveFile(content: Blob, name: string): void {
  const url = URL.createObjectURL(content)
  const anchor = document.createElement('a')
  anchor.href = url
  anchor.download = name
  anchor.click()
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
