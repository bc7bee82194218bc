/** Altitudes the tables are used for. */
export const ALTITUDE_LIMIT_M = { min: -100, max: 3048 } as const;
