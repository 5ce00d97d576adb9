// Next moves about enquiries, and the word to the owner when one comes in.
import { inArray } from 'drizzle-orm';
import { counted } from '../../../core/words';
import { MOST_MOVES, type Move } from '../../../core/moves';
import type { Reader } from '../../db/connection';
import { enquiries } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { queueMail } from '../messages/outbox';
import { loadEnquiry, enquiryTitle } from './enquiries';

const DAY = 86_400_000;

export function enquiryMoves({ db, clock }: World): Move[] {
	const rows = db
		.select()
		.from(enquiries)
		.where(inArray(enquiries.state, ['open', 'answered']))
		.orderBy(enquiries.movedAt)
		.limit(MOST_MOVES)
		.all();
	const now = clock.now();
	return rows.flatMap((row): Move[] => {
		const days = Math.floor((now - row.movedAt) / DAY);
		// Who was answered has a week to say more.
		if (row.state === 'answered' && days < 7) return [];
		return [
			{
				id: `enquiry:${row.id}`,
				amount: 0n,
				late: days >= 2,
				title: `${row.name} asks: ${enquiryTitle(row)}`,
				detail:
					row.state === 'answered'
						? `answered ${counted(days, 'day')} ago, and nothing since`
						: days === 0
							? 'came today'
							: `waits for ${counted(days, 'day')}`,
				action: 'See',
				href: `/work/enquiries/${row.id}`
			}
		];
	});
}

/** News of one that came through the page, for the owner. */
export function tellOfEnquiry(tx: Reader, world: World, id: number): void {
	const { email: to } = loadBusiness(tx);
	const row = loadEnquiry(tx, id);
	const plain = (words: string) => words.replaceAll('{link}', '(link)');
	if (to)
		queueMail(tx, world, {
			key: `enquiryNews:${id}`,
			kind: 'enquiryNews',
			to,
			subject: `${row.name} asks: ${enquiryTitle(row)}`.slice(0, 200),
			text: `${plain(row.name)} asks:\n\n${plain(row.what)}\n\n${plain([row.place, row.phone, row.email].filter(Boolean).join('\n'))}\n\nAnswer it here: {link}`,
			link: `${world.origin}/work/enquiries/${id}`
		});
}
