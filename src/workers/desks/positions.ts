import { type PositionPlan, type PositionProblem, solvePositions } from '@/core/assess/positions'
import { loadSolver, type SolveProgram } from '@/core/hookup/solver'

/** Solves one problem of positions after another; the solver is loaded once. */
export function positions() {
  let solver: Promise<SolveProgram> | null = null
  return {
    async solve(problem: PositionProblem, wasm: string): Promise<{ plan: PositionPlan; ms: number }> {
      solver ??= loadSolver(wasm)
      const solve = await solver.catch((error: unknown) => {
        solver = null
        throw error
      })
      const began = performance.now()
      return { plan: solvePositions(problem, solve), ms: performance.now() - began }
    },
  }
}
export type Positions = ReturnType<typeof positions>
