// Puts the built app where the server starts it from. The framework's own adapter packs once more what the build has packed already, which takes as
// long as all the rest of it; here the server's files are taken as they are, with the packages they name beside them, as in any tree that was
// installed. What listens and answers are the adapter's own files.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const FILES = join(dirname(fileURLToPath(import.meta.resolve('@sveltejs/adapter-node'))), 'files');

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
			await Promise.all([
				builder.compress(`${out}/client`),
				builder.compress(`${out}/prerendered`)
			]);
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
