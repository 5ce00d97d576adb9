// What goes along with a mail: the paper it is about, with its credit note where there is one.
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { sheetFileName } from '../../../core/jobs/jobSheetView';
import type { World } from '../../world';
import {
	acceptances,
	documents,
	documentFiles,
	jobSheets,
	mails,
	quotes,
	quoteTrials,
	quoteVersions,
	signatures,
	trials,
	statements
} from '../../db/schema';

/** A reminder carries so many of its invoices; the others are behind its links. */
export const MOST_ATTACHED = 10;

/** What is known of reminders by those who write them, asked at the moment one is handed over. */
export interface Reminders {
	/** Whether what it asks for is still so. */
	stillStands(world: World, messageId: number): boolean;
	/** Takes it back, so that it is decided anew. */
	withdraw(world: World, messageId: number): void;
	/** The invoices it asks for. */
	itemsOf(world: World, messageId: number): number[];
	/** A visit of which something was told, as a calendar file: as it stands when the mail goes. */
	calendarOf(world: World, toldId: number): { content: string; off: boolean } | null;
}

/** An invoice that stands in place of another goes out with the credit notes that take that one back. */
function withItsCredit(world: World, documentId: number): number[] {
	const document = world.db
		.select({ origin: documents.origin, aboutId: documents.aboutId })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (document?.origin !== 'replacement' || document.aboutId === null) return [documentId];
	const credits = world.db
		.select({ id: documents.id })
		.from(documents)
		.where(and(eq(documents.correctsId, document.aboutId), eq(documents.state, 'issued')))
		.all();
	return [documentId, ...credits.map(({ id }) => id)];
}

export function attachmentOf(world: World, mail: typeof mails.$inferSelect, reminders: Reminders) {
	const calendar = mail.toldId === null ? null : reminders.calendarOf(world, mail.toldId);
	if (calendar)
		return [
			{
				filename: 'visit.ics',
				content: Buffer.from(calendar.content),
				contentType: `text/calendar; charset=utf-8; method=${calendar.off ? 'CANCEL' : 'PUBLISH'}`
			}
		];
	if (!mail.attachPdf) return [];
	const contentType = 'application/pdf';
	if (mail.trialId) {
		const trial = world.db
			.select({ pdf: trials.pdf })
			.from(trials)
			.where(eq(trials.id, mail.trialId))
			.get();
		return trial ? [{ filename: 'Test.pdf', content: trial.pdf, contentType }] : [];
	}
	if (mail.quoteTrialId) {
		const trial = world.db
			.select({ pdf: quoteTrials.pdf })
			.from(quoteTrials)
			.where(eq(quoteTrials.id, mail.quoteTrialId))
			.get();
		return trial ? [{ filename: 'Test.pdf', content: trial.pdf, contentType }] : [];
	}
	if (mail.statementId) {
		const made = world.db
			.select({ pdf: statements.pdf })
			.from(statements)
			.where(eq(statements.id, mail.statementId))
			.get();
		return made?.pdf ? [{ filename: 'Statement.pdf', content: made.pdf, contentType }] : [];
	}
	if (mail.quoteId) return quotePaper(world, mail.quoteId);
	if (mail.sheetId) return sheetPaper(world, mail.sheetId);
	const documentIds = mail.chaseMessageId
		? reminders.itemsOf(world, mail.chaseMessageId).slice(0, MOST_ATTACHED)
		: withItsCredit(world, mail.documentId ?? 0);
	return world.db
		.select()
		.from(documentFiles)
		.where(inArray(documentFiles.documentId, documentIds))
		.orderBy(asc(documentFiles.documentId))
		.all()
		.map(({ name, content }) => ({ filename: name, content, contentType }));
}

/** The record of what was accepted; before that the version that counts. */
function quotePaper(world: World, quoteId: number) {
	const contentType = 'application/pdf';
	const accepted = world.db
		.select({ record: acceptances.record, number: quotes.number })
		.from(acceptances)
		.innerJoin(quotes, eq(quotes.id, acceptances.quoteId))
		.where(eq(acceptances.quoteId, quoteId))
		.get();
	if (accepted?.record)
		return [{ filename: `${accepted.number}-accepted.pdf`, content: accepted.record, contentType }];
	return world.db
		.select({ filename: quoteVersions.name, content: quoteVersions.content })
		.from(quoteVersions)
		.where(eq(quoteVersions.quoteId, quoteId))
		.orderBy(desc(quoteVersions.n))
		.limit(1)
		.all()
		.map((file) => ({ ...file, contentType }));
}

/** With the signature on it once there is one. */
function sheetPaper(world: World, sheetId: number) {
	const sheet = world.db
		.select({ number: jobSheets.number, pdf: jobSheets.pdf, record: signatures.record })
		.from(jobSheets)
		.leftJoin(signatures, eq(signatures.sheetId, jobSheets.id))
		.where(eq(jobSheets.id, sheetId))
		.get();
	const content = sheet?.record ?? sheet?.pdf;
	return content
		? [
				{
					filename: sheetFileName(sheet!.number!),
					content,
					contentType: 'application/pdf'
				}
			]
		: [];
}
