// The page of a job sheet: while it is written with all that could go on it, once it is finished as it is.
import { desc, eq } from 'drizzle-orm';
import { may, seesPrices } from '../../actor';
import { mails } from '../../db/schema';
import type { World } from '../../world';
import { loadJob } from '../jobs/jobs';
import { prepareSheet, sheetLink } from '../signing/send';
import { asShown, loadSheet, sheetSource, signatureOf } from '../signing/sheets';
import { sheetView } from '../signing/sign';
import { withoutCosts } from '../../../core/jobs/jobSheet';

/** Where whoever asks sees the job. */
export const jobPath = (jobId: number): string =>
	may('work') ? `/work/${jobId}` : `/site/${jobId}`;

export function sheetPage(world: World, id: number) {
	const { db, clock } = world;
	const sheet = loadSheet(db, id);
	const job = loadJob(db, sheet.jobId);
	const back = jobPath(job.id);
	const number = sheet.number ?? `${job.number}/${sheet.n}`;
	if (sheet.state === 'draft') {
		const prices = seesPrices();
		return {
			writing: {
				id,
				number,
				today: clock.today(),
				version: sheet.version,
				written: sheet.written,
				// What it costs stays with the owner's own pages.
				source: withoutCosts(sheetSource(world, job.id), prices),
				prices,
				back
			},
			finished: null
		};
	}
	const signature = signatureOf(db, id);
	return {
		writing: null,
		finished: {
			id,
			number,
			job: { number: job.number, title: job.title },
			back,
			view: sheetView(db, id)!,
			link: sheetLink(db, world, sheet),
			signed: signature ? asShown(signature) : null,
			sending: prepareSheet(world, id),
			sent: db
				.select({ to: mails.to, at: mails.createdAt, state: mails.state })
				.from(mails)
				.where(eq(mails.sheetId, id))
				.orderBy(desc(mails.id))
				.limit(10)
				.all()
		}
	};
}
