// Puts the built app where the server starts it from. The framework's own adapter packs once more what the build has packed already, which takes as
// long as all the rest of it; here the server's files are taken as they are, with the packages they name beside them, as in any tree that was
// installed. What listens and answers are the adapter's own files.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const FILES = join(dirname(fileURLToPath(import.meta.resolve('@sveltejs/adapter-node'))), 'files');

const COMPRESSED = new Set(['.html', '.js', '.mjs', '.json', '.css', '.svg', '.xml', '.wasm']);
/** From this size on a file is one of those that come late: the last tenth of its bytes would take a quarter of the whole build. */
const LARGE_BYTES = 100_000;

/** Beside each file that shrinks, what it is when sent. The framework's own takes the best for all of them, however large. @param {string} folder */
async function compress(folder) {
	const { BROTLI_PARAM_QUALITY, BROTLI_PARAM_SIZE_HINT } = constants;
	const files = readdirSync(folder, { recursive: true, withFileTypes: true })
		.filter((one) => one.isFile() && COMPRESSED.has(extname(one.name)))
		.map((one) => join(one.parentPath, one.name));
	await Promise.all(
		files.map(async (file) => {
			const bytes = readFileSync(file);
			const params = {
				[BROTLI_PARAM_QUALITY]: bytes.length < LARGE_BYTES ? 11 : 9,
				[BROTLI_PARAM_SIZE_HINT]: bytes.length
			};
			writeFileSync(`${file}.br`, await promisify(brotliCompress)(bytes, { params }));
			writeFileSync(`${file}.gz`, await promisify(gzip)(bytes, { level: 9 }));
		})
	);
}

/** @returns {import('@sveltejs/kit').Adapter} */
export default function adapter(out = 'build') {
	return {
		name: 'as-built',
		async adapt(builder) {
			const { base } = builder.config.kit.paths;
			builder.rimraf(out);
			builder.mkdirp(out);
			builder.writeClient(`${out}/client${base}`);
			builder.writePrerendered(`${out}/prerendered${base}`);
			await compress(`${out}/client`);
			builder.writeServer(`${out}/server`);
			builder.copy(FILES, out);
			/** What stands for something in the adapter's files. @type {Record<string, string>} */
			const meant = {
				"'SERVER'": "'./server/index.js'",
				"'MANIFEST'": "'./server/manifest.js'",
				BASE: JSON.stringify(base),
				ENV_PREFIX: "''",
				PRECOMPRESS: 'true',
				PRERENDERED: `new Set(${JSON.stringify(builder.prerendered.paths)})`
			};
			for (const name of readdirSync(out).filter((one) => one.endsWith('.js'))) {
				const text = readFileSync(join(out, name), 'utf8');
				writeFileSync(
					join(out, name),
					text.replace(
						/'SERVER'|'MANIFEST'|\b(?:BASE|ENV_PREFIX|PRECOMPRESS|PRERENDERED)\b/g,
						(word) => meant[word] ?? word
					)
				);
			}
		},
		supports: { read: () => true }
	};
}
