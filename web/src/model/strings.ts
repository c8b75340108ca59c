/** What this part of the interface says, in one place to be read together. */
export const strings = {
  theReferenceModelCannotBe: "The reference model cannot be analysed yet",
  analysingTheReferenceModel: "analysing the reference model…",
  waitingForAWorker: "waiting for a worker",
  analysisOfTheReferenceModel: "Analysis of the reference model",
  cancel: "Cancel",
  theReferenceModelIsNot: "The reference model is not stable",
  theAnalysisWasCancelled: "The analysis was cancelled",
  theAnalysisFailed: "The analysis failed",
  runAgain: "Run again",
  warningsAboutTheReferenceModel: "Warnings about the reference model",
  showWhere: "show where",
  thereIsNoReferenceModel: "There is no reference model to compare with: ",
  createOne: "create one",
  line: (number: number) => `line ${number}`,
};
