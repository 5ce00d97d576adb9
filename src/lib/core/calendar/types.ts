// Dates without a time are dates: `YYYY-MM-DD`, as they stand in the database.

/** A calendar day, `YYYY-MM-DD`. Compares in order as text. */
export type PlainDate = string;
