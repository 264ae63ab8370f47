import {
  type PositionPlan,
  type PositionProblem,
  type SolveProgram,
  solvePositions,
} from '@/core/hookup/positions'
import { loadSolver } from '@/core/hookup/solver'

export type PositionAnswer = { ok: true; plan: PositionPlan; ms: number } | { ok: false; message: string }

let solver: Promise<SolveProgram> | null = null

/** Solves one problem of positions after another; the solver is loaded once. */
addEventListener('message', (event: MessageEvent<{ problem: PositionProblem; wasm: string }>) => {
  const { problem, wasm } = event.data
  solver ??= loadSolver(wasm)
  solver
    .then(solve => {
      const began = performance.now()
      const plan = solvePositions(problem, solve)
      postMessage({ ok: true, plan, ms: performance.now() - began } satisfies PositionAnswer)
    })
    .catch((error: unknown) => {
      solver = null
      postMessage({
        ok: false,
        message: error instanceof Error ? error.message : String(error),
      } satisfies PositionAnswer)
    })
})
