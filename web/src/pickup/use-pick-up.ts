import { computed, ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import { begunWith, sentLanguage } from '../light/begun'
import { language } from '../text/speaking'

export type PickUp = components['schemas']['PickUp']
export type OfferedFile = components['schemas']['OfferedFile']

interface Begin {
  page: PickUp | null
  problem: { status: number } | null
}

/** The longest list of numbers that fits into an address. */
const LONGEST_LIST = 5_500

/** Numbers in ascending order as an address takes them: `1-5,9`. */
export function numbersWritten(numbers: number[]): string {
  const parts: string[] = []
  for (let at = 0; at < numbers.length; ) {
    let last = at
    while (last + 1 < numbers.length && numbers[last + 1] === numbers[last]! + 1) last++
    parts.push(last > at ? `${numbers[at]}-${numbers[last]}` : String(numbers[at]))
    at = last + 1
  }
  return parts.join(',')
}

/** The page behind the link in the address: it comes with the HTML, or is loaded; and the passcode that may stand before it. */
export function usePickUp() {
  const token = location.pathname.split('/').filter(Boolean).slice(1).pop() ?? ''
  const page = ref<PickUp>()
  const problem = ref<ApiProblem>()
  const ticket = ref('')
  const headers = computed<Record<string, string>>(() => ({ 'Oak-Link': token, 'Accept-Language': language.value, ...(ticket.value ? { 'Oak-Ticket': ticket.value } : {}) }))
  const passcodeNeeded = computed(() => problem.value?.code === 'link-passcode-needed')

  async function load() {
    try {
      page.value = await light('get', '/api/pick-up', { headers: headers.value })
      problem.value = undefined
      seen()
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  async function begin() {
    const came = begunWith<Begin>('begin')
    if (came?.page) {
      page.value = came.page
      return seen()
    }
    // Whoever chose another language here before reads a refusal in that one.
    if (came?.problem && language.value === sentLanguage) {
      problem.value = ApiProblem.read(came.problem.status, JSON.stringify(came.problem))
      return
    }
    await load()
  }

  /** Somebody looks at the page; whether that was heard changes nothing for them. */
  function seen() {
    document.title = `${page.value!.title} – ${page.value!.office}`
    void light('post', '/api/pick-up/seen', { headers: headers.value }).catch(() => {})
  }

  /** Throws the problem of a wrong passcode; the page loads when it is right. */
  async function unlock(passcode: string) {
    ticket.value = (await light('post', '/api/pick-up/passcode', { body: { passcode }, headers: headers.value })).ticket
    await load()
  }

  /** Reads how often everything was taken, as far as it is shown. */
  async function refresh() {
    const shown = page.value?.files.length ?? 0
    await load()
    while (page.value && page.value.files.length < shown && (await more()) > 0);
  }

  /** Loads further files; says how many came. */
  async function more(): Promise<number> {
    const from = page.value!.files.length
    const came = (await light('get', `/api/pick-up/files?from=${from}` as '/api/pick-up/files', { headers: headers.value })) as OfferedFile[]
    page.value = { ...page.value!, files: [...page.value!.files, ...came] }
    return came.length
  }

  const addresses = {
    all: `/d/${token}/all`,
    one: (file: OfferedFile) => `/d/${token}/${file.number}/${encodeURIComponent(file.name)}`,
    look: (file: OfferedFile) => `/d/${token}/look/${file.number}`,
    /** Empty where they do not fit into an address. */
    some: (numbers: number[]) => {
      const written = numbersWritten(numbers)
      return written.length > LONGEST_LIST ? '' : `/d/${token}/chosen.zip?files=${written}`
    },
  }

  return { page, problem, passcodeNeeded, begin, load, refresh, more, unlock, addresses }
}
