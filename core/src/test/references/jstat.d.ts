/** The part of the statistics library that the tests hold the core against; it ships no types. */
export const jStat: {
  normal: {
    cdf: (x: number, mean: number, sd: number) => number;
    inv: (share: number, mean: number, sd: number) => number;
  };
  studentt: {
    inv: (share: number, freedom: number) => number;
    pdf: (x: number, freedom: number) => number;
  };
};
