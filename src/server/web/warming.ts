/** Set while a web process warms up: nobody but itself reaches it then. */
const shared = globalThis as { spillwayWarming?: boolean }
export const isWarming = () => shared.spillwayWarming === true

export async function whileWarming(work: () => Promise<void>): Promise<void> {
  shared.spillwayWarming = true
  try {
    await work()
  } finally {
    shared.spillwayWarming = false
  }
}
