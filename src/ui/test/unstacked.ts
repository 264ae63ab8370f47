import * as React from 'react'

interface Internals {
  recentlyCreatedOwnerStacks: number
}
const key = '__CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE'
const internals = (React as unknown as Record<string, Internals | undefined>)[key]

// React's development build takes a call stack for each element until it has taken ten thousand within a second: a third of
// the time of these tests, for stacks that no test reads. A React that does not count so is left as it is.
if (internals && 'recentlyCreatedOwnerStacks' in internals)
  Object.defineProperty(internals, 'recentlyCreatedOwnerStacks', {
    get: () => Number.POSITIVE_INFINITY,
    set: () => {},
  })
