/** What this part of the interface says, in one place to be read together. */
export const strings = {
  ground: "Ground",
  saving: "saving…",
  undo: "Undo",
  edition: "Edition",
  notSavedTheValuesAre: "Not saved; the values are unchanged",
  ourValues: "Our values",
  under: (title: string) => ` under ${title}`,
  multiPeriodSpectrumOfPoints: (count: number) => `Multi-period spectrum of ${count} points is given. `,
  removeIt: "remove it",
  siteMeasurements: "Site measurements",
  notEntered: "not entered",
  theMeasurementsGive: "The measurements give ",
  but: ", but ",
  isEntered: " is entered",
  theirsAndOurs: "Theirs and ours",
};
