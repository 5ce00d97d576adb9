// What the published types of pdfmake leave out.
import 'pdfmake';

declare module 'pdfmake' {
	const virtualfs: { writeFileSync(path: string, content: Buffer): void };
}
