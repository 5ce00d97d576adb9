// What a PDF says, and where: read by another library than the one that drew it.
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

export interface Word {
	page: number;
	text: string;
	/** In points, from the left and from the top. */
	x: number;
	y: number;
}

export async function wordsOf(pdf: Buffer): Promise<Word[]> {
	const opened = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
	const words: Word[] = [];
	for (let page = 1; page <= opened.numPages; page++) {
		const one = await opened.getPage(page);
		const [, , , height = 0] = one.view;
		const { items } = await one.getTextContent();
		for (const item of items)
			if ('str' in item && item.str.trim())
				words.push({
					page,
					text: item.str,
					x: item.transform[4] as number,
					y: height - (item.transform[5] as number)
				});
	}
	await opened.loadingTask.destroy();
	return words;
}

/** All of it, with single spaces. */
export const textOf = async (pdf: Buffer): Promise<string> =>
	(await wordsOf(pdf))
		.map(({ text }) => text)
		.join(' ')
		.replace(/\s+/g, ' ');
