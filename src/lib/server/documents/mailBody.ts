// A message as mail: its text, and the same as HTML in which nothing typed can be markup.

export function escapeHtml(text: string): string {
	return text
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;')
		.replaceAll("'", '&#39;');
}

/** Puts the link in its place; where the owner took the place out, at the end. */
export function fillMessage(
	text: string,
	link: string,
	banner = ''
): { text: string; html: string } {
	const body = text.includes('{link}') ? text : `${text.trimEnd()}\n\n{link}`;
	const anchor = `<a href="${escapeHtml(link)}">${escapeHtml(link)}</a>`;
	const paragraphs = escapeHtml(body)
		.replaceAll('{link}', anchor)
		.split(/\n{2,}/)
		.map((paragraph) => `<p>${paragraph.replaceAll('\n', '<br>')}</p>`);
	const head = banner ? `<p><strong>${escapeHtml(banner)}</strong></p>` : '';
	return {
		text: (banner ? `${banner}\n\n` : '') + body.replaceAll('{link}', link),
		html: `<!doctype html><html lang="en-GB"><body style="font-family:sans-serif;font-size:16px;color:#17212b">${head}${paragraphs.join('')}</body></html>`
	};
}
