import { test as base, expect } from '@playwright/test'

/** Requests of a journey that no page makes: they say where they come from, as a program must. */
export const test = base.extend({
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
