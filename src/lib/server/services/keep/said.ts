// What is in a backup, in words: the same on the console and on a page.
import { displayMoment } from '../../../core/calendar/conversion';
import { counted } from '../../../core/words';
import type { BackupLook } from './restore';

export function saidOfLook(look: BackupLook): string[] {
	const last = look.last.map(({ kind, number }) =>
		kind === 'invoice' ? `the last invoice is ${number}` : `the last credit note is ${number}`
	);
	return [
		`The books of ${look.business}, as they stood on ${displayMoment(look.madeAt)}.`,
		`${counted(look.customers, 'customer')}, ${counted(look.jobs, 'job')}, ${counted(look.issued, 'issued document')}, ${counted(look.drafts, 'draft')}, ${counted(look.payments, 'payment')}${last.length ? `; ${last.join(', ')}` : ''}.`,
		look.found
			? `The books in it differ from themselves in ${counted(look.found, 'place')}.`
			: 'The books in it agree with themselves.',
		...(look.files
			? [
					look.missing.length
						? `Of its ${counted(look.files, 'photo or file', 'photos and files')}, ${look.missing.length} are nowhere to be found.`
						: `Its ${counted(look.files, 'photo or file is', 'photos and files are')} all there.`
				]
			: [])
	];
}
