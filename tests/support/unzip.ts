// What is in an archive, by name.
import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';

export async function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
	const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
		yauzl.fromBuffer(bytes, { lazyEntries: true }, (error, file) =>
			error ? reject(error) : resolve(file)
		)
	);
	const found = new Map<string, Buffer>();
	zip.readEntry();
	return new Promise((resolve, reject) => {
		zip.on('entry', (entry: yauzl.Entry) =>
			zip.openReadStream(entry, (error, stream) => {
				if (error) return reject(error);
				void buffer(stream).then((content) => {
					found.set(entry.fileName, content);
					zip.readEntry();
				});
			})
		);
		zip.on('end', () => resolve(found));
		zip.on('error', reject);
	});
}
