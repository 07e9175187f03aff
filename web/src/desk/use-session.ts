import { ref, shallowRef } from 'vue'
import { desk, type Schemas } from '../api/desk'

/** Who is signed in; undefined before the server was asked. */
export const session = shallowRef<Schemas['Session']>()

/** Whether the server no longer knows the session under an open desk. What is on the screen stays, and one signs in over it. */
export const sessionEnded = ref(false)

export async function loadSession(): Promise<void> {
  session.value = await desk.session()
}
