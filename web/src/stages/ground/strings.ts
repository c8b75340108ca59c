/** What this part of the interface says, in one place to be read together. */
export const strings = {
  ground: "Ground",
  saving: "saving…",
  undo: "Undo",
  edition: "Edition",
  notSavedTheValuesAre: "Not saved; the values are as they were",
  ourOwnValues: "Our own values",
  under: (title: string) => ` under ${title}`,
  multiPeriodSpectrumOfPoints: (count: number) => `Multi-period spectrum of ${count} points is given. `,
  leaveItOut: "leave it out",
  measuredInTheGround: "Measured in the ground",
  notGiven: "not given",
  whatWasMeasuredIs: "What was measured is ",
  whileWord: ", while ",
  isGiven: " is given",
  theirsAndOurs: "Theirs and ours",
};
