/** What is done to each circuit: signs together, and words. */
export function marksOf(
  plan: readonly { sign: string; word: string; circuitIds: readonly string[]; hindered: string | null }[],
): Map<string, { sign: string; words: string }> {
  const marks = new Map<string, { sign: string; words: string }>()
  for (const { sign, word, circuitIds, hindered } of plan)
    for (const id of circuitIds) {
      const was = marks.get(id)
      const words = hindered === null ? word : `${word}, which cannot be`
      marks.set(id, was ? { sign: `${was.sign}${sign}`, words: `${was.words}, ${words}` } : { sign, words })
    }
  return marks
}
