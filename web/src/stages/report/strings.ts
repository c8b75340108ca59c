/** What this part of the interface says, in one place to be read together. */
export const strings = {
  youSignTheReportAs: "You sign the report as it stands.",
  report: "Report",
  deviation: (unfiled: number) => `${unfiled} deviation`,
  thatStartHere: " that start here",
  inNoFinding: " in no finding",
  finding: (drafts: number) => `${drafts} finding`,
  notIssued: " not issued",
  everyDeviationThatStartsHere: "every deviation that starts here is in a finding",
  plumbJson: ".plumb.json",
  signAndIssueReport: "Sign and issue report ",
  notIssued2: "Not issued",
  notPrinted: "Not printed",
  notLoaded: "Not loaded",
  report2: (number: number) => `Report ${number}`,
  signedBySha256: (issued_by: string, moment: string, sha256: string) =>
    `signed by ${issued_by}, ${moment}, SHA-256 ${sha256}…`,
  noReportHasBeenIssued: "No report has been issued yet.",
  previewOfTheReport: "Preview of the report",
  openThePdf: "Open the PDF",
  printThisDraft: "Print this draft",
};
