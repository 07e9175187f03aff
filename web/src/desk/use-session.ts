import { ref, shallowRef } from 'vue'
import { desk, type Permission, type Schemas } from '../api/desk'

/** Who is signed in; undefined before the server was asked. */
export const session = shallowRef<Schemas['Session']>()

/** Whether the server no longer knows the session under an open desk. What is on the screen stays, and one signs in over it. */
export const sessionEnded = ref(false)

/** Whether whoever is signed in may do something; what they may not is not offered to them. The server keeps to it in any case. */
export function may(permission: Permission): boolean {
  return session.value?.may.includes(permission) ?? false
}

export async function loadSession(): Promise<void> {
  session.value = await desk.session()
}
