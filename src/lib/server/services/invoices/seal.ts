// The seal of an issued document: one hash over its row, its lines in order, and the hash of its PDF. The audit computes it
// anew from the data file, so that nothing of it can be changed unnoticed.
import type { Frozen } from '../../../core/documents/types';
import type { InvoiceFigures } from '../../../core/figures/types';
import type { Database } from '../../db/connection';
import { sha256 } from '../business/keys';

/** Of a document all of whose columns are written but its state and what is frozen of it, which comes with it. */
export function sealOf({ $client }: Database, documentId: number, frozen: string): string {
	// By hand, as they are written: a document may have hundreds of lines, and nobody is answered meanwhile.
	const rows = (query: string, ...given: string[]) =>
		$client
			.prepare(query)
			.raw()
			.all(...given, documentId) as unknown[][];
	const [document] = rows(
		`
		select id, kind, key, origin, about_id, corrects_id, customer_id, customer_name, number, running, issue_date,
			sort_date, tax_point, due_date, token, ?, currency, net, vat_charged, vat_reverse_charged, total,
			total_sterling, deduction, issued_at
		from documents where id = ?`,
		frozen
	);
	const lines = rows(`
		select position, kind, description, quantity, unit, unit_price, vat, cost, net, document_discount, retention,
			taxable, without_vat, job_id, tax_point
		from document_lines where document_id = ? order by position`);
	const [file] = rows('select name, sha256 from document_files where document_id = ?');
	return sha256(JSON.stringify([document, lines, file]));
}

/** Net, VAT charged and accounted for by the customer, total, deduction, retention: kept as they were computed. */
export function sumsOf({
	net,
	vatCharged,
	vatReverseCharged,
	total,
	cis,
	retention
}: InvoiceFigures): Frozen['sums'] {
	return [
		Number(net),
		Number(vatCharged),
		Number(vatReverseCharged),
		Number(total),
		cis ? Number(cis.deduction) : null,
		Number(retention)
	];
}
