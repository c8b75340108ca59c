import { counted } from "../../shared/numbers";

/** What this part of the interface says, in one place to be read together. */
export const strings = {
  auditTrail: "audit trail",
  youSignTheReportAs: "You sign the report as shown.",
  report: "Report",
  origins: (count: number) => counted(count, "origin"),
  withoutAFinding: " without a finding",
  finding: (drafts: number) => counted(drafts, "finding"),
  notIssued: " not issued",
  everyOriginIsCoveredBy: "every origin is covered by a finding",
  plumbJson: ".plumb.json",
  signAndIssueReport: "Sign and issue report ",
  theReportWasNotIssued: "The report was not issued",
  theReportWasNotPrinted: "The report was not printed",
  theReportsCouldNotBe: "The reports could not be loaded",
  reportNumbered: (number: number) => `Report ${number}`,
  signedBySha256: (issued_by: string, moment: string, sha256: string) =>
    `signed by ${issued_by}, ${moment}, SHA-256 ${sha256}…`,
  noReportHasBeenIssued: "No report has been issued yet.",
  previewOfTheReport: "Preview of the report",
  openThePdf: "Open the PDF",
  printThisDraft: "Print this draft",
};
