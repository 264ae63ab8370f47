/** Whether an operation writes down what happened: it is added to what others wrote, and taken back by another entry, never undone. */
export const happened = ({ op }: { op: string }): boolean => op === 'recordWork' || op === 'recordTests'
