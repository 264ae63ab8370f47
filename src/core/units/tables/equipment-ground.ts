import type { ConductorSize } from './conductors'

/** Equipment grounding conductor by the rating of the breaker ahead of it, NEC 250.122. */
export const equipmentGrounds: readonly { upToA: number; cu: ConductorSize; al: ConductorSize }[] = [
  { upToA: 15, cu: '14', al: '12' },
  { upToA: 20, cu: '12', al: '10' },
  { upToA: 60, cu: '10', al: '8' },
  { upToA: 100, cu: '8', al: '6' },
  { upToA: 200, cu: '6', al: '4' },
  { upToA: 300, cu: '4', al: '2' },
  { upToA: 400, cu: '3', al: '1' },
]
