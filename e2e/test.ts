import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type BrowserContext, test as base, type Cookie, expect } from '@playwright/test'

/** All that a journey may leave behind but the program's files, which every visitor would fetch and compile anew. */
const left = 'cookies,local_storage,indexeddb,service_workers,cache_storage'

/** Whom a journey looks around as; nobody: it signs in itself, or needs nobody. */
export type As = 'owner' | 'designer' | 'technician' | 'nobody'

interface Fixtures {
  as: As
  /** the cookies of a session of its own */
  session: Cookie[]
}

export const test = base.extend<Fixtures, { visitor: BrowserContext }>({
  as: ['designer', { option: true }],
  session: async ({ playwright, baseURL, as }, use) => {
    if (as === 'nobody') return use([])
    const door = await playwright.request.newContext({ baseURL, extraHTTPHeaders: { origin: baseURL ?? '' } })
    const answer = await door.post('/api/auth/demo/enter', { data: { as } })
    expect(answer.status()).toBe(200)
    const { cookies } = await door.storageState()
    await door.dispose()
    await use(cookies)
  },
  visitor: [
    async ({ playwright }, use, { project }) => {
      const { baseURL, viewport, contextOptions, launchOptions } = project.use
      const profile = mkdtempSync(join(tmpdir(), 'spillway-visitor-'))
      const context = await playwright.chromium.launchPersistentContext(profile, {
        ...launchOptions,
        ...contextOptions,
        baseURL,
        viewport,
      })
      await use(context)
      await context.close()
      rmSync(profile, { recursive: true, force: true })
    },
    { scope: 'worker' },
  ],
  /** One visitor after another, with the program's files kept and compiled as at a second visit; who comes with a phone comes alone. */
  context: async ({ visitor, browser, hasTouch, viewport, baseURL, contextOptions, session }, use) => {
    if (hasTouch) {
      const phone = await browser.newContext({ ...contextOptions, baseURL, viewport, hasTouch })
      await phone.addCookies(session)
      await use(phone)
      return phone.close()
    }
    await visitor.addCookies(session)
    await use(visitor)
    await visitor.setOffline(false)
    await visitor.clearPermissions()
    await visitor.unrouteAll()
    const page = await visitor.newPage()
    for (const other of visitor.pages()) if (other !== page) await other.close()
    const wire = await visitor.newCDPSession(page)
    await wire.send('Storage.clearDataForOrigin', { origin: baseURL ?? '', storageTypes: left })
  },
  /** Requests of a journey that no page makes: they say where they come from, as a program must. */
  request: async ({ playwright, baseURL, session }, use) => {
    const context = await playwright.request.newContext({
      baseURL,
      extraHTTPHeaders: { origin: baseURL ?? '' },
      storageState: { cookies: session, origins: [] },
    })
    await use(context)
    await context.dispose()
  },
})
export { expect }
