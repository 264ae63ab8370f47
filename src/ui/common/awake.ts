import { useSyncExternalStore } from 'react'

const never = () => () => {}

/** Whether this page’s script has come: what is pressed before it would be lost, or sent by the browser as it thinks fit. */
export const useAwake = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
