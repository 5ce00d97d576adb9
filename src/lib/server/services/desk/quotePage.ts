// What the page of a quote shows its owner: what is out, what was said to it, and what is next.
import { asc, eq } from 'drizzle-orm';
import { blankSheet } from '../../../core/sheet/blank';
import { frozenQuote } from '../../../core/quotes/frozen';
import type { QuoteDetail } from '../../../core/quotes/detail';
import { NOTHING_PICKED } from '../../../core/quotes/chosen';
import { cancelForm, contractFacts, rightToCancel } from '../../../core/regimes/gb/consumer';
import { sellerOf } from '../../../core/quotes/view';
import type { World } from '../../world';
import {
	depositRequests,
	jobs,
	people,
	quoteQuestions,
	quoteTrail,
	quoteVersions,
	stagePlans
} from '../../db/schema';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { filesOf } from '../files/files';
import { mailAddresses } from '../customers/parts';
import { sheetContext } from '../invoices/context';
import { acceptanceOf } from '../quotes/accept';
import { cancelLimit, cancelShare } from '../quotes/cancel';
import { loadQuote } from '../quotes/quotes';
import { isAsSent, newestVersion, prepareQuote } from '../quotes/send';

/** The sheet of a quote, as it is written. */
export function quoteSheetPage(world: World, id: number) {
	const { db, clock } = world;
	const row = loadQuote(db, id);
	const { corrects: _none, ...context } = sheetContext(db, row.sheet, clock.today());
	return {
		...context,
		draft: {
			id,
			version: row.version,
			sheet: { ...blankSheet(), ...row.sheet },
			savedAt: row.updatedAt
		},
		files: filesOf(db, { to: 'quote', id }),
		mailTo: row.customerId === null ? '' : (mailAddresses(db, row.customerId, row.sheet)[0] ?? ''),
		ownAddress: loadBusiness(db).email,
		nextNumber: row.number ?? '',
		series: null,
		sent: row.sent,
		number: row.number,
		forJob:
			row.forJobId === null
				? ''
				: (db.select({ number: jobs.number }).from(jobs).where(eq(jobs.id, row.forJobId)).get()
						?.number ?? '')
	};
}

/** Null before it went out. */
export function quoteDetail(world: World, id: number): QuoteDetail | null {
	const { db, clock } = world;
	const row = loadQuote(db, id);
	const today = clock.today();
	const version = newestVersion(db, id);
	if (!version) return null;
	const acceptance = acceptanceOf(db, id);
	const limit = acceptance ? cancelLimit(db, acceptance) : null;
	const deposit = db.select().from(depositRequests).where(eq(depositRequests.quoteId, id)).get();
	const { frozen } = version;
	const { lines, quote } = frozenQuote(frozen, acceptance?.picked ?? NOTHING_PICKED);
	const right = rightToCancel(
		contractFacts(
			frozen.customer,
			frozen.sheet.quote!,
			quote.figures.total,
			quote.included.map((index) => lines[index]!.kind)
		)
	);
	const share = acceptance?.cancelledOn ? cancelShare(db, acceptance, {}) : null;
	return {
		id,
		number: row.number!,
		title: row.title,
		state: row.state === 'sent' && row.validUntil! < today ? ('expired' as const) : row.state,
		customer: { id: row.customerId, name: row.customerName },
		household: frozen.customer.kind === 'household',
		validUntil: row.validUntil!,
		sentAt: row.sentAt,
		openedAt: row.openedAt,
		quiet: row.quiet,
		reason: row.reason,
		total: acceptance?.total ?? version.total,
		lowest: row.lowest,
		highest: row.highest,
		sent: row.sent,
		link: `${world.origin}/q/${linkToday(db, row.token)}`,
		token: row.token,
		changed: !isAsSent(db, row),
		version: row.version,
		versions: db
			.select({ n: quoteVersions.n, sentAt: quoteVersions.sentAt, total: quoteVersions.total })
			.from(quoteVersions)
			.where(eq(quoteVersions.quoteId, id))
			.orderBy(asc(quoteVersions.n))
			.all(),
		trail: db
			.select({
				id: quoteTrail.id,
				at: quoteTrail.at,
				what: quoteTrail.what,
				detail: quoteTrail.detail,
				who: people.name
			})
			.from(quoteTrail)
			.leftJoin(people, eq(people.id, quoteTrail.personId))
			.where(eq(quoteTrail.quoteId, id))
			.orderBy(asc(quoteTrail.id))
			.all(),
		questions: db
			.select()
			.from(quoteQuestions)
			.where(eq(quoteQuestions.quoteId, id))
			.orderBy(asc(quoteQuestions.id))
			.all()
			.map(({ key: _key, quoteId: _quote, ...question }) => question),
		right,
		form: right.may ? cancelForm(sellerOf(frozen), row.title) : [],
		accepted: acceptance
			? {
					name: acceptance.name,
					position: acceptance.position,
					orderNumber: acceptance.orderNumber,
					way: acceptance.way,
					on: acceptance.agreedOn,
					at: acceptance.at,
					total: acceptance.total,
					signature: acceptance.signature
						? `data:image/png;base64,${acceptance.signature.toString('base64')}`
						: null,
					hasRecord: acceptance.record !== null,
					begin: acceptance.law.begin,
					cancel: limit ? (limit.until ?? ('open' as const)) : null,
					cancelledOn: acceptance.cancelledOn,
					cancelledHow: acceptance.cancelledHow
				}
			: null,
		share: share && {
			paid: String(share.paid),
			by: share.by,
			owes: acceptance!.law.begin && acceptance!.law.informed !== '',
			lines: share.lines.map(({ id: lineId, description, agreed }) => ({
				id: lineId,
				description,
				agreed: String(agreed)
			}))
		},
		deposit: deposit
			? {
					amount: deposit.amount,
					deduction: deposit.deduction,
					state: deposit.state,
					documentId: deposit.documentId
				}
			: null,
		plan:
			row.jobId === null
				? []
				: db
						.select({ title: stagePlans.title, amount: stagePlans.amount })
						.from(stagePlans)
						.where(eq(stagePlans.jobId, row.jobId))
						.orderBy(asc(stagePlans.position))
						.all(),
		job:
			row.jobId === null
				? null
				: (db
						.select({ id: jobs.id, number: jobs.number, state: jobs.state })
						.from(jobs)
						.where(eq(jobs.id, row.jobId))
						.get() ?? null),
		sending: row.state === 'sent' ? prepareQuote(world, id) : null
	};
}
