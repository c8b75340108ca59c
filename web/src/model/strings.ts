/** What this part of the interface says, in one place to be read together. */
export const strings = {
  ourOwnModelCantBe: "Our own model can't be asked yet",
  askingOurModel: "asking our model…",
  waitingForAWorker: "waiting for a worker",
  runOfOurModel: "Run of our model",
  cancel: "Cancel",
  ourModelCantStand: "Our model can't stand",
  theRunWasCancelled: "The run was cancelled",
  theRunFailed: "The run failed",
  runItAgain: "Run it again",
  remarksOnOurModel: "Remarks on our model",
  showWhere: "show where",
  thereIsNoModelOf: "There is no model of our own to hold theirs against: ",
  makeOne: "make one",
};
