// The two kinds of number that money needs: whole minor units, and exact decimals.

/** Money in whole minor units (pence for GBP). Never a float. */
export type Minor = bigint;

/** An exact decimal, `units / 10^scale`; `scale` counts the decimals as they were written. */
export interface Decimal {
	readonly units: bigint;
	readonly scale: number;
}
