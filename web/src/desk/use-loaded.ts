import { ref, shallowRef } from 'vue'
import type { ApiProblem } from '../api/problem'
import { router } from './router'
import { session } from './use-session'

/** Something read from the server: its value, and the problem while there is none. A session that ended leads to signing in. */
export function useLoaded<T>(read: () => Promise<T>) {
  const value = shallowRef<T>()
  const problem = ref<ApiProblem>()

  async function load() {
    try {
      value.value = await read()
      problem.value = undefined
    } catch (error) {
      problem.value = error as ApiProblem
      if (problem.value.status === 401) {
        session.value = undefined
        await router.push({ name: 'sign-in', query: { to: router.currentRoute.value.fullPath } })
      }
    }
  }

  return { value, problem, load }
}
