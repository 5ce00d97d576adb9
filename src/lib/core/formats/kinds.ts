// Files that are taken for a bank statement and are none that can be read: what they are, and what to ask the bank for.

const ASK = 'Ask your bank for the same statement as CSV, OFX or camt.053.';
const starts = (bytes: Uint8Array, ...signs: number[]) =>
	signs.every((sign, index) => bytes[index] === sign);

/** Names a file by its first bytes; null where it may be text. */
function binary(bytes: Uint8Array): string | null {
	const latin = new TextDecoder('latin1').decode(bytes.subarray(0, 4000));
	if (latin.startsWith('%PDF'))
		return `This is a PDF: a picture of a statement, in which no program can be sure of a figure. ${ASK}`;
	if (starts(bytes, 0x50, 0x4b, 3, 4))
		return /xl\/|\[Content_Types\]|mimetypeapplication\/vnd\.oasis/.test(latin)
			? 'This is a spreadsheet. Open it and save it as CSV.'
			: 'This is a packed folder (ZIP). Unpack it, and bring in the file that is inside.';
	if (starts(bytes, 0xd0, 0xcf, 0x11, 0xe0))
		return 'This is an old spreadsheet or letter. Open it and save it as CSV.';
	if (starts(bytes, 0x1f, 0x8b)) return 'This file is packed (gzip). Unpack it first.';
	if (starts(bytes, 0x89, 0x50, 0x4e, 0x47) || starts(bytes, 0xff, 0xd8, 0xff))
		return `This is a picture. ${ASK}`;
	return null;
}

/** Names a file by how its text begins; null where it may be a table. */
function written(text: string): string | null {
	const head = text.slice(0, 4000).replace(/^\ufeff/, '');
	if (/^\s*!(Type|Account|Option|Clear)\b/im.test(head.slice(0, 200)))
		return `This is a QIF file. It does not say in which order its dates are written, nor which account it is. ${ASK}`;
	if (/^\s*(\{1:|:20:)/m.test(head) && /^:(25|28C?|60[FM]|61):/m.test(head))
		return `This is an MT940 file (SWIFT), whose texts every bank writes in its own way. ${ASK} Its follower is camt.053.`;
	if (/^01,[^,]*,[^,]*,\d{6},/m.test(head.slice(0, 300))) return `This is a BAI2 file. ${ASK}`;
	if (/^!(TRNS|ACCNT|CUST)\b/m.test(head)) return `This is an IIF file of bookkeeping. ${ASK}`;
	if (/BEGIN:VCARD/i.test(head)) return 'These are addresses (vCard). Bring them in at Customers.';
	if (/BEGIN:VCALENDAR/i.test(head)) return `This is a calendar. ${ASK}`;
	if (/^\s*[[{]\s*["{[]/.test(head) && /["\]}]\s*[:,\]}]/.test(head))
		return `This is JSON, the data of a program. ${ASK}`;
	if (/^\s*<!doctype html|<html[\s>]/i.test(head))
		return `This is a page of the web, perhaps saved under another name. ${ASK}`;
	if (/BkToCstmrAcctRpt|camt\.052/.test(head))
		return 'This is camt.052, the movements of a day that is not over yet. Ask your bank for camt.053, the statement.';
	if (/BkToCstmrDbtCdtNtfctn|camt\.054/.test(head))
		return 'This is camt.054, notes on single payments. Ask your bank for camt.053, the statement.';
	if (/pain\.00\d|CstmrCdtTrfInitn|CstmrDrctDbtInitn/.test(head))
		return 'This file orders payments; it is no statement. Ask your bank for camt.053.';
	if (/^\s*</.test(head)) return `This is XML, but no bank statement that is known here. ${ASK}`;
	return null;
}

/** Words for a file that is no statement one can read; null where it may be one. */
export const unreadable = { binary, written };
