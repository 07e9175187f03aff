import { ref } from 'vue'
import type { ApiProblem } from '../api/problem'

/** Sends a form once at a time, and keeps what was said against it for its fields. */
export function useSubmit(work: () => Promise<void>) {
  const problem = ref<ApiProblem>()
  const busy = ref(false)

  async function submit() {
    if (busy.value) return
    busy.value = true
    problem.value = undefined
    try {
      await work()
    } catch (error) {
      problem.value = error as ApiProblem
    } finally {
      busy.value = false
    }
  }

  return { problem, busy, submit }
}
