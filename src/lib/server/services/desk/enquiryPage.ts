// What the page of an enquiry shows: what was asked, what came of it, and the answer that is begun.
import { eq } from 'drizzle-orm';
import { customers, jobs, quotes } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { enquiryTitle, loadEnquiry } from '../enquiries/enquiries';
import { questionsOf } from '../enquiries/page';
import { filesOf } from '../files/files';

/** @throws NotFoundError */
export function enquiryPage({ db }: World, id: number) {
	const enquiry = loadEnquiry(db, id);
	const { ownerName, tradingName } = loadBusiness(db);
	const { customerId, jobId } = enquiry;
	const customer =
		customerId === null
			? undefined
			: db
					.select({ id: customers.id, name: customers.name })
					.from(customers)
					.where(eq(customers.id, customerId))
					.get();
	const job =
		jobId === null
			? undefined
			: db.select({ id: jobs.id, number: jobs.number }).from(jobs).where(eq(jobs.id, jobId)).get();
	return {
		enquiry,
		title: enquiryTitle(enquiry),
		questions: questionsOf(db),
		files: filesOf(db, { to: 'enquiry', id }),
		customer: customer ?? null,
		job: job ?? null,
		quotes: db
			.select({ id: quotes.id, number: quotes.number, title: quotes.title, state: quotes.state })
			.from(quotes)
			.where(eq(quotes.enquiryId, id))
			.all(),
		reply: {
			subject: `Your enquiry: ${enquiryTitle(enquiry)}`,
			text: `Hello ${enquiry.name}\n\nThank you for asking. \n\nKind regards\n${ownerName}${tradingName ? `\n${tradingName}` : ''}`
		}
	};
}
