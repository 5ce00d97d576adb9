// What the pages of the payment stand-ins share: their frame, amounts, and text made safe.

export function amountInPounds(pence: number): string {
	return `£${Math.floor(pence / 100).toLocaleString('en-GB')}.${String(pence % 100).padStart(2, '0')}`;
}

export function escape(text: string): string {
	return text
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;');
}

export function page(title: string, body: string): string {
	return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escape(title)}</title>
<style>body{font:17px/1.5 system-ui;margin:0;background:#e9eef0;color:#182126}main{max-width:26rem;margin:3rem auto;background:#fff;padding:1.5rem 1.75rem;border-radius:10px}
h1{font-size:1.7rem;margin:.2rem 0 1rem}label{display:block;font-weight:600}input{font:inherit;width:100%;box-sizing:border-box;padding:.7rem;border:1px solid #6b7a82;border-radius:6px;margin:.3rem 0 1rem}
button{font:inherit;font-weight:600;width:100%;padding:.8rem;border:0;border-radius:6px;background:#182126;color:#fff;margin-bottom:.6rem}.error{color:#8d1f12;font-weight:600}ul{padding-left:1.1rem;color:#47555c;font-size:.92rem}</style>
<main>${body}</main></html>`;
}

export async function read(request: AsyncIterable<unknown>): Promise<string> {
	const chunks: Buffer[] = [];
	for await (const chunk of request) chunks.push(chunk as Buffer);
	return Buffer.concat(chunks).toString('utf8');
}
