/** Does something of the account; asks to confirm the identity where that is required. */
export type Doing = <T>(act: () => Promise<T>) => Promise<T>;
