// The form of an enquiry, typed by the owner: its boxes, and the answers to the owner's own questions.
import { z } from 'zod';
import { box, byId, rowId } from './answers';

export const enquiryBoxes = z.object({
	key: box,
	version: rowId,
	name: box,
	email: box,
	phone: box,
	place: box,
	what: box,
	wanted: box,
	source: box,
	workKindId: rowId,
	note: box
});

/** As the service takes it. */
export function typedEnquiry(
	{ workKindId, ...form }: Omit<z.output<typeof enquiryBoxes>, 'key' | 'version'>,
	posted: FormData,
	questions: readonly { id: number; question: string; unit: string }[]
) {
	const given = byId(posted, 'answer.');
	return {
		...form,
		workKindId: workKindId || null,
		answers: questions.flatMap(({ id, question, unit }) => {
			const answer = (given[id] ?? '').trim();
			return answer ? [{ question, answer: `${answer}${unit ? ` ${unit}` : ''}` }] : [];
		})
	};
}
