/** The part of the ODE solver that the tests hold the core against; the package's own types do not compile strictly. */
export class Solver {
  constructor(dimensions: number);
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(
    derivative: (x: number, y: number[]) => number[],
    x0: number,
    y0: number[],
    xEnd: number,
  ): { y: number[] };
}
