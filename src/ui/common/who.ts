/** Who this page was made for, by their id as a person of the firm; empty where nobody is. */
let who = ''

export function setWho(personId: string): void {
  who = personId
}
export const whoHere = (): string => who

/** Whether something kept on this device is theirs; what an earlier version kept does not say whose it is. */
export const isTheirs = ({ by }: { by?: string }): boolean => by === undefined || by === who
