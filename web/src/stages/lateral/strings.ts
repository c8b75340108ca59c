/** What this part of the interface says, in one place to be read together. */
export const strings = {
  notTested: "not tested",
  notMet: "not met",
  twoStageAnalysis: "Two-stage analysis",
  twoStageHead: "Two-stage analysis ",
  permitted: "permitted",
  notPermitted: "not permitted",
  missingInputAConditionIs: "missing input: a condition is not tested",
  baseShearOfTheUpper: "base shear of the upper part",
  factorR: "factor (R/ρ)",
  transferred: "transferred",
  ofTheLowerPart: "of the lower part",
  atTheBase: "at the base",
  kn: (figures: string) => `${figures} kN`,
  lateral: "Lateral",
  staticForcesAndTheWeight: "static forces and the weight behind them",
  theirsAndOursDirection: (direction: string) => `Theirs and ours, direction ${direction}`,
};
