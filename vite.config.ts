import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';

/**
 * A page names what it imports, so that the browser fetches it at once. The framework looks for style sheets behind what is imported later, and
 * forgets what it has met there, though the page imports it at once too. All our styles are one sheet: there is nothing to be found.
 */
const fetchedAtOnce: Plugin = {
	name: 'fetched-at-once',
	generateBundle: {
		order: 'post',
		handler(_, bundle) {
			const manifest = bundle['.vite/manifest.json'];
			if (manifest?.type !== 'asset') return;
			const chunks = JSON.parse(String(manifest.source)) as Record<
				string,
				{ dynamicImports?: string[] }
			>;
			for (const chunk of Object.values(chunks)) delete chunk.dynamicImports;
			manifest.source = JSON.stringify(chunks);
		}
	}
};

/**
 * Icons as what they are: a picture that is known when the app is built. The library draws each from its data, attribute by attribute, on every
 * page that is opened, and a page with a dozen of them spent half of its coming to life on it.
 */
const stillIcons: Plugin = {
	name: 'still-icons',
	enforce: 'pre',
	transform(code, id) {
		if (!/@lucide[\\/]svelte[\\/]dist[\\/]icons[\\/][\w-]+\.svelte$/.test(id)) return;
		const data = /const iconData = (\{.*\});/.exec(code)?.[1];
		if (!data) throw new Error(`The data of an icon are not where they were: ${id}`);
		const { node } = JSON.parse(data) as { node: [string, Record<string, string>][] };
		const parts = node.map(
			([tag, attributes]) =>
				`<${tag} ${Object.entries(attributes)
					.map(([name, value]) => `${name}="${value}"`)
					.join(' ')} />`
		);
		return `<script>let { size = 24, class: given = '', 'aria-hidden': hidden } = $props();</script>
<svg xmlns="http://www.w3.org/2000/svg" width={size} height={size} viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" stroke-linejoin="round" class={given || undefined} aria-hidden={hidden}>${parts.join('')}</svg>`;
	}
};

/** Compiled for the machine, or reading files of their own folder: the server takes these from where they were installed. */
const AS_INSTALLED = [
	'better-sqlite3',
	'pdfmake',
	'@node-rs/argon2',
	'nodemailer',
	'pino',
	'sharp'
];
/** Each is hundreds of files of which the server uses a few: packed with it, 240 files are read at a start instead of 1,000. */
const PACKED = [
	'astronomia',
	'date-chinese',
	'date-holidays',
	'date-holidays-parser',
	'drizzle-orm',
	'typebox',
	'zod',
	'zod-v3-to-json-schema'
];

export default defineConfig(({ command }) => ({
	plugins: [stillIcons, tailwindcss(), sveltekit(), fetchedAtOnce],
	build: {
		// The reader of PDFs and the charts are large, and come late.
		chunkSizeWarningLimit: 2000,
		rolldownOptions: {
			checks: { pluginTimings: false },
			output: {
				// What nearly every page uses comes in a few files rather than in thirty.
				codeSplitting: {
					groups: [
						{
							name: 'base',
							test: /node_modules[\\/](svelte|@sveltejs|esm-env|clsx)[\\/]/,
							minShareCount: 8
						},
						{
							name: 'shared',
							// Small things of everywhere; what they pull along comes with them, so nothing heavy is among them.
							test: /lucide|src[\\/]lib[\\/](core[\\/](calendar|money|words|refusals)|ui[\\/]parts[\\/](Field|Form|Money|Choice|DateField|Tick|Places|Table|Pager|LateFold|Menu|FilePick|Notices|notices|frame|keys|here|filters)\b)/,
							minShareCount: 4,
							minSize: 0
						},
						{
							name: 'life',
							// What all of the parts that come to life later stand on.
							test: /@zag-js[\\/](core|utils|dom-query|types|store|collapsible|presence|svelte)[\\/]|src[\\/]lib[\\/]ui[\\/]parts[\\/]Fold\b/,
							minShareCount: 4,
							minSize: 0
						},
						{
							name: 'jobs',
							test: /src[\\/]lib[\\/](core[\\/](jobs|sheet[\\/]discount)|ui[\\/]jobs)\b|lucide/,
							minShareCount: 2,
							minSize: 0
						}
					]
				}
			}
		}
	},
	// While developing every file is a file of its own.
	ssr: { external: AS_INSTALLED, ...(command === 'build' ? { noExternal: PACKED } : {}) }
}));
