import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { api, type Session } from '../api/client'
import { connection } from '../api/connection'

/** Who is signed in. Asked once; the router waits for it. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)
  /** "" for nobody, also once the server has said so. */
  const shown = computed(() => (connection.signedOut ? '' : (session.value?.shown ?? '')))

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

  async function rename(name: string): Promise<void> {
    session.value = await api.changeName(name)
  }

  return { session, shown, load, signIn, signOut, rename }
})
