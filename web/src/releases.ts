import type { Router } from 'vue-router'

import { connection } from './api/connection'

/** A script that cannot be loaded: after a new release the page loads again, at the address that was wanted; without a
 * connection the banner says so, and the view opens once there is one. */

const TRIED = 'loaded again for'
const ENOUGH_MS = 30_000
const AGAIN_MS = 4000

export function keepUpWithReleases(router: Router): void {
  let wanted = ''
  router.beforeEach((to) => void (wanted = to.fullPath))
  router.afterEach(() => void (wanted = ''))

  // A view tells the router as well; what a view asks for itself, a dialog for instance, tells only here.
  window.addEventListener('vite:preloadError', () => {
    if (!wanted) void recover(router, router.currentRoute.value.fullPath)
  })
  router.onError((error: Error, to) => {
    wanted = ''
    if (!/import|module|preload|fetch/i.test(error.message)) throw error
    void recover(router, to.fullPath)
  })
}

async function recover(router: Router, address: string): Promise<void> {
  if (!(await answers())) return wait(router, address)
  const [last, at] = (sessionStorage.getItem(TRIED) ?? '').split(' ')
  if (last === address && Date.now() - Number(at) < ENOUGH_MS) return wait(router, address)
  sessionStorage.setItem(TRIED, `${address} ${Date.now()}`)
  window.location.assign(address)
}

/** Stylesheets that did not come are asked for again: the loader asks once only, and a view that opens later goes without. */
async function style(): Promise<void> {
  const links = [...document.querySelectorAll<HTMLLinkElement>('link[rel="stylesheet"]')]
  await Promise.all(
    links
      .filter(({ sheet }) => !sheet)
      .map(
        (failed) =>
          new Promise<void>((done) => {
            const link = failed.cloneNode() as HTMLLinkElement
            link.onload = link.onerror = () => done()
            failed.replaceWith(link)
          }),
      ),
  )
}

/** The server is asked, not the browser: a machine may be online without it. */
async function answers(): Promise<boolean> {
  try {
    return (await fetch('/api/health', { cache: 'no-store' })).status < 500
  } catch {
    return false
  }
}

function wait(router: Router, address: string): void {
  connection.online = false
  connection.wanted = address
  const timer = setInterval(async () => {
    if (connection.wanted !== address) return clearInterval(timer)
    if (!(await answers())) return
    clearInterval(timer)
    connection.online = true
    connection.wanted = ''
    await style()
    await router.push(address)
  }, AGAIN_MS)
}
