import type { Router } from 'vue-router'

import { connection } from './api/connection'

/** A view whose script cannot be loaded: after a new release the page loads again, at the address that was wanted; without a
 * connection the banner says so, and the view opens once there is one. */

const TRIED = 'loaded again for'
const ENOUGH_MS = 30_000

export function keepUpWithReleases(router: Router): void {
  const reload = (address: string): void => {
    const [last, at] = (sessionStorage.getItem(TRIED) ?? '').split(' ')
    if (last === address && Date.now() - Number(at) < ENOUGH_MS) return lost(router, address)
    sessionStorage.setItem(TRIED, `${address} ${Date.now()}`)
    window.location.assign(address)
  }

  window.addEventListener('vite:preloadError', (event) => event.preventDefault())
  router.onError(async (error: Error, to) => {
    if (!/import|module|preload|fetch/i.test(error.message)) throw error
    if (await answers()) reload(to.fullPath)
    else lost(router, to.fullPath)
  })
}

/** The server is asked, not the browser: a machine may be online without it. */
async function answers(): Promise<boolean> {
  try {
    return (await fetch('/api/health', { cache: 'no-store' })).status < 500
  } catch {
    return false
  }
}

function lost(router: Router, address: string): void {
  connection.online = false
  connection.wanted = address
  const timer = setInterval(async () => {
    if (connection.wanted !== address) return clearInterval(timer)
    if (!(await answers())) return
    clearInterval(timer)
    connection.online = true
    connection.wanted = ''
    await router.push(address)
  }, 4000)
}
