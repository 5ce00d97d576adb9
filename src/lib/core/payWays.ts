// In which ways somebody may pay.

/** Ways in which a document may be paid: by card and from the bank through its page, and by a transfer of one's own. */
export interface PayWays {
	card: boolean;
	bank: boolean;
	transfer: boolean;
}
export const ALL_WAYS: PayWays = { card: true, bank: true, transfer: true };
