import { shallowRef } from 'vue'
import { desk, type Schemas } from '../api/desk'

/** Who is signed in; undefined before the server was asked. */
export const session = shallowRef<Schemas['Session']>()

export async function loadSession(): Promise<void> {
  session.value = await desk.session()
}
