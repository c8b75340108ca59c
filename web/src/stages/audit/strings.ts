/** What this part of the interface says, in one place to be read together. */
export const strings = {
  auditTrail: "Audit trail",
  who: "who",
  what: "what",
  when: "when",
  detail: "detail",
  since: "From",
  until: "Until",
  asCsv: "Download as CSV",
  earlier: "Show earlier entries",
  nothing: "No entry passes the filter.",
  couldNotBeLoaded: "The audit trail could not be loaded",
};
