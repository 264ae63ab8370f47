import loadHighs from 'highs'

/** A solver of integer programs in CPLEX LP text; columns by name. */
export type SolveProgram = (program: string) => Record<string, number>

/** HiGHS, compiled to WebAssembly, as the solver of position programs. `wasmUrl` where the page serves it from. */
export async function loadSolver(wasmUrl?: string): Promise<SolveProgram> {
  const highs = await loadHighs(wasmUrl ? { locateFile: () => wasmUrl } : {})
  return program => {
    const solved = highs.solve(program, { output_flag: false, presolve: 'on', mip_rel_gap: 0 })
    if (solved.Status !== 'Optimal') throw new Error(`the program of positions ended ${solved.Status}`)
    return Object.fromEntries(
      Object.entries(solved.Columns).map(([name, column]) => [
        name,
        'Primal' in column ? Number(column.Primal) : 0,
      ]),
    )
  }
}
