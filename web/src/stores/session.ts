import { defineStore } from 'pinia'
import { ref } from 'vue'

import { api, type Session } from '../api/client'

/** Who is signed in. Asked once; the router waits for it. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)

  async function load(): Promise<Session> {
    session.value ??= await api.session()
    return session.value
  }

  async function signIn(name: string, password: string): Promise<void> {
    session.value = await api.signIn(name, password)
  }

  async function signOut(): Promise<void> {
    session.value = await api.signOut()
  }

  return { session, load, signIn, signOut }
})
