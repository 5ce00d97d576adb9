// A message as mail: its text, and the same as HTML in which nothing typed can be markup.

export function escapeHtml(text: string): string {
	return text
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;')
		.replaceAll("'", '&#39;');
}

const buttonTo = (link: string, words: string, colour: string): string =>
	`<p><a href="${escapeHtml(link)}" style="display:inline-block;background:${colour};color:#fffdf9;font-weight:600;text-decoration:none;padding:13px 22px;border-radius:3px">${escapeHtml(words)}</a></p>`;

/**
 * Puts the link in its place; where the owner took the place out, at the end. Without a link of its own the text holds its
 * links already: those that begin with `origin` can be pressed.
 */
export function fillMessage(
	text: string,
	link: string | null,
	banner = '',
	origin = '',
	/** What the button says that leads to the link. */
	button = '',
	/** Of the letterhead: dark enough for light words on it. */
	colour = '#17212b'
): { text: string; html: string } {
	const there = link === null || text.includes('{link}') || text.includes(link);
	const body = there ? text : `${text.trimEnd()}\n\n${link}`;
	const filled = link === null ? body : body.replaceAll('{link}', link);
	const exactly = (address: string) => escapeHtml(address).replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
	// Its own link first, then whatever else of ours stands in the text, without the full stop after it.
	const pressable = new RegExp(
		[
			...(link === null ? [] : [exactly(link)]),
			...(origin === '' ? [] : [`${exactly(origin)}/[^\\s<]*[^\\s<.,;:)]`])
		].join('|') || '$^',
		'g'
	);
	let pressed = false;
	const paragraphs = escapeHtml(filled)
		.replace(pressable, (address) => `<a href="${address}">${address}</a>`)
		.split(/\n{2,}/)
		.map((paragraph) => {
			const lines = `<p>${paragraph.replaceAll('\n', '<br>')}</p>`;
			if (pressed || !button || link === null || !paragraph.includes(`href="${escapeHtml(link)}"`))
				return lines;
			// One clear button, and the address as it is for whoever sees no buttons.
			pressed = true;
			return `${buttonTo(link, button, colour)}${lines}`;
		});
	const head = banner ? `<p><strong>${escapeHtml(banner)}</strong></p>` : '';
	return {
		text: (banner ? `${banner}\n\n` : '') + filled,
		html: `<!doctype html><html lang="en-GB"><body style="font-family:sans-serif;font-size:16px;color:#17212b">${head}${paragraphs.join('')}</body></html>`
	};
}
