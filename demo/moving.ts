// What the demo business carried over from its books before: two invoices that were open, and were paid soon after.
import { eq } from 'drizzle-orm';
import { displayDate } from '../src/lib/core/calendar/conversion';
import { addDays } from '../src/lib/core/calendar/manipulation';
import { displayAmount } from '../src/lib/core/money/display';
import { documents, openItems } from '../src/lib/server/db/schema';
import { recordPayment } from '../src/lib/server/services/money/payments';
import { importOpening } from '../src/lib/server/services/moving/invoices';
import type { Setting, Step } from './work';

export function movingSteps({ world, today, morning }: Setting): Step[] {
	const day = (ago: number) => displayDate(addDays(today, -ago));
	const file = [
		'Number,Customer,Issued,Due,Net,VAT,Paid,Paid on,Description',
		`OLP-0168,Corvane Dairy Ltd,${day(447)},${day(433)},640.00,128.00,,,Damp survey of the milking parlour`,
		`OLP-0171,"Parochial Church Council of All Hallows, Harrowmere",${day(440)},${day(412)},1150.00,230.00,400.00,${day(430)},Lime wash in the north aisle`
	].join('\n');
	const paid = (number: string, ago: number): Step => ({
		at: morning(ago, 90),
		async run() {
			const item = world.db
				.select({ id: documents.id, toPay: openItems.toPay })
				.from(documents)
				.innerJoin(openItems, eq(openItems.documentId, documents.id))
				.where(eq(documents.number, number))
				.get()!;
			recordPayment(world, item.id, {
				key: `demo-moved:${number}`,
				date: world.clock.today(),
				amount: displayAmount(item.toPay),
				withheld: '',
				way: 'bank',
				reference: number,
				allowOverpaid: false
			});
		}
	});
	return [
		{
			at: morning(424, 60),
			async run() {
				const { rows } = await importOpening(world, new TextEncoder().encode(file), {
					key: 'demo-moving',
					name: 'open-invoices.csv',
					addCustomers: false,
					returnedUntil: addDays(today, -425)
				});
				const wrong = rows.find(({ outcome }) => outcome !== 'new');
				if (wrong) throw new Error(`${wrong.name}: ${wrong.detail}`);
			}
		},
		paid('OLP-0168', 416),
		paid('OLP-0171', 405)
	];
}
