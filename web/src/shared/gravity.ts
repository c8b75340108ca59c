/** Standard acceleration of gravity, m/s2, as the core has it. */
export const GRAVITY = 9.80665;
