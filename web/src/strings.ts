/** What this part of the interface says, in one place to be read together. */
export const strings = {
  notLoaded: "Not loaded",
};
