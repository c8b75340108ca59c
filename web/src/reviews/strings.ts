import { counted } from "../shared/numbers";

/** What this part of the interface says, in one place to be read together. */
export const strings = {
  isNotAnExportedReview: (name: string) => `${name} is not an exported review`,
  reviews: "Reviews",
  theOffice: "The office",
  mailOfTheDemo: "Mail of the demo",
  signOut: "Sign out",
  importWord: "Import",
  newReview: "New review",
  theReviewWasNotImported: "The review was not imported",
  theReviewsCouldNotBe: "The reviews could not be loaded",
  thereAreNoReviewsYet: "There are no reviews yet. Start with ",
  enterTheBriefPasteThe: ": enter the brief, paste the submitted tables, and the sheet shows what is out of plumb.",
  openFindings: (count: number) => (count ? counted(count, "open finding") : "no open findings"),
  nothingSubmitted: "nothing submitted",
  youAre: (role: string) => `you are ${role}`,
  closed: ", closed",
  building: "Building",
  place: "Place",
  client: "Client",
  governingEdition: "Governing edition",
  theReviewWasNotCreated: "The review was not created",
  createAndEnterTheBrief: "Create and enter the brief",
};
