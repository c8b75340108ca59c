/** What this part of the interface says, in one place to be read together. */
export const strings = {
  library: "Library of remarks",
  whatItIs:
    "Texts of the office for findings. A remark is offered at checks of its code, with the values of the check in place of the words in braces.",
  placeholders: "Words in braces: ",
  reviews: "Reviews",
  importIt: "Import",
  exportIt: "Export",
  isNoLibrary: (name: string) => `${name} is not an exported library`,
  added: (added: number, known: number) => `${added} added, ${known} known already`,
  couldNotBeLoaded: "The library could not be loaded",
  notImported: "Nothing was imported",
  notSaved: "Not saved",
  noneYet: "There are no remarks yet. Write one here, or add one from a finding.",
  newRemark: "New remark",
  code: "Code of the catalogue",
  anyCode: "any",
  title: "Title",
  text: "Text",
  save: "Save",
  remove: "Delete",
  by: (author: string, day: string) => `${author}, ${day}`,
};

export const PLACEHOLDERS = [
  ...["label", "meaning", "clause", "edition", "story", "case", "direction"],
  ...["submitted", "recomputed", "deviation", "limit", "file"],
];
