import { type BrowserContext, test as base, expect } from '@playwright/test'

/** All that a journey may leave behind but the program's files, which every visitor would fetch and compile anew. */
const left = 'cookies,local_storage,indexeddb,service_workers,cache_storage'

export const test = base.extend<object, { visitor: BrowserContext }>({
  visitor: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, contextOptions } = project.use
      const context = await browser.newContext({ ...contextOptions, baseURL, viewport })
      await use(context)
      await context.close()
    },
    { scope: 'worker' },
  ],
  /** One visitor after another with the files at hand; who comes with a phone or in the dark comes alone. */
  context: async ({ context, visitor, hasTouch, colorScheme, baseURL }, use) => {
    if (hasTouch || colorScheme === 'dark') return use(context)
    await use(visitor)
    await visitor.setOffline(false)
    await visitor.clearPermissions()
    await visitor.unrouteAll()
    const [page, ...others] = visitor.pages()
    for (const other of others) await other.close()
    if (!page) return
    await page.goto('about:blank')
    const session = await visitor.newCDPSession(page)
    await session.send('Storage.clearDataForOrigin', { origin: baseURL ?? '', storageTypes: left })
    await page.close()
  },
  /** Requests of a journey that no page makes: they say where they come from, as a program must. */
  request: async ({ playwright, baseURL }, use) => {
    const context = await playwright.request.newContext({
      baseURL,
      extraHTTPHeaders: { origin: baseURL ?? '' },
    })
    await use(context)
    await context.dispose()
  },
})
export { expect }
