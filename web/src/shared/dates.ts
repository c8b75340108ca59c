/** Dates by the reader's locale, the month in letters, so that day and month cannot be mistaken for each other. */

const DAY = { day: "numeric", month: "short", year: "numeric" } as const;

export const day = (iso: string, locale?: string): string => new Date(iso).toLocaleDateString(locale, DAY);

export const moment = (iso: string, locale?: string): string =>
  new Date(iso).toLocaleString(locale, { ...DAY, hour: "2-digit", minute: "2-digit" });
