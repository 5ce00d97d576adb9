// A file somebody brought in, as an answer: pictures are shown, everything else is only ever downloaded.

export function fileResponse(file: { name: string; type: string; content: Buffer }): Response {
	const inline = file.type === 'image/jpeg';
	return new Response(new Uint8Array(file.content), {
		headers: {
			'content-type': inline ? file.type : 'application/octet-stream',
			'content-disposition': `${inline ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
			// Even if something of it were a page: nothing in it runs, and it is nobody's frame.
			'content-security-policy': "default-src 'none'; sandbox",
			'cross-origin-resource-policy': 'same-origin'
		}
	});
}

/** A paper of ours, shown where it is opened. */
export const pdfResponse = ({ name, content }: { name: string; content: Uint8Array }): Response =>
	new Response(new Uint8Array(content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${name}"`
		}
	});

export const logoResponse = (content: Uint8Array): Response =>
	new Response(new Uint8Array(content), {
		headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400' }
	});
