// What a new version of a quote says that the one before did not, in words for its customer.
import type { Frozen } from '../documents/types';
import { displayPounds } from '../money/display';
import type { SheetLine } from '../sheet/types';
import { frozenQuote } from './frozen';
import { NOTHING_PICKED } from './chosen';

const nameOf = ({ description }: SheetLine): string => description.trim().slice(0, 120);

const TEXTS = {
	title: 'what it is for',
	before: 'the text before the lines',
	notIncluded: 'what is not included',
	assumed: 'what was assumed',
	guarantee: 'guarantee and insurance',
	terms: 'the terms',
	begin: 'when it could begin',
	duration: 'how long it takes',
	deposit: 'the deposit'
} as const;

export function differs(before: Frozen, now: Frozen): string[] {
	const [a, b] = [before, now].map((one) => frozenQuote(one, NOTHING_PICKED));
	const old = new Map(a!.lines.map((line, index) => [line.id, { line, index }]));
	const said: string[] = [];
	for (const [index, line] of b!.lines.entries()) {
		const was = old.get(line.id);
		old.delete(line.id);
		if (!was) {
			said.push(`New: ${nameOf(line)}, ${displayPounds(b!.quote.lines[index]!.net)}`);
			continue;
		}
		const [net, netBefore] = [b!.quote.lines[index]!.net, a!.quote.lines[was.index]!.net];
		if (net !== netBefore)
			said.push(`${nameOf(line)}: ${displayPounds(net)} instead of ${displayPounds(netBefore)}`);
		else if (line.description.trim() !== was.line.description.trim())
			said.push(`${nameOf(line)} is described anew`);
		if (JSON.stringify(line.choice ?? null) !== JSON.stringify(was.line.choice ?? null))
			said.push(
				`${nameOf(line)} is ${line.choice ? `a way of “${line.choice.group}”` : 'no alternative any more'}`
			);
		if ((line.extra ?? false) !== (was.line.extra ?? false))
			said.push(`${nameOf(line)} is ${line.extra ? 'optional now' : 'part of it now'}`);
	}
	for (const { line } of old.values()) said.push(`Gone: ${nameOf(line)}`);
	const [terms, termsBefore] = [now.sheet.quote!, before.sheet.quote!];
	for (const [name, words] of Object.entries(TEXTS) as [keyof typeof TEXTS, string][])
		if (terms[name].trim() !== termsBefore[name].trim()) said.push(`Changed: ${words}`);
	if (JSON.stringify(terms.stages) !== JSON.stringify(termsBefore.stages))
		said.push('Changed: what is paid when');
	if (now.sheet.discount.trim() !== before.sheet.discount.trim())
		said.push('Changed: the discount');
	const [total, totalBefore] = [b!.quote.figures.total, a!.quote.figures.total];
	if (total !== totalBefore)
		said.push(`It comes to ${displayPounds(total)} instead of ${displayPounds(totalBefore)}`);
	return said;
}
