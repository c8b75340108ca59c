/** What this part of the interface says, in one place to be read together. */
export const strings = {
  notTested: "not tested",
  notMet: "not met",
  twoStageAnalysis: "Two-stage analysis",
  twoStageAnalysis2: "Two-stage analysis ",
  permitted: "permitted",
  notPermitted: "not permitted",
  openAConditionIsntTested: "open: a condition isn't tested",
  baseShearOfTheUpper: "base shear of the upper part",
  factorR: "factor (R/ρ)",
  handedDown: "handed down",
  ofTheLowerPartItself: "of the lower part itself",
  atTheBase: "at the base",
  kn: (figures: string) => `${figures} kN`,
  lateral: "Lateral",
  staticForcesAndTheWeight: "static forces and the weight they act on",
  theirsAndOursDirection: (direction: string) => `Theirs and ours, direction ${direction}`,
};
