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

export default defineConfig({
	plugins: [tailwindcss(), sveltekit(), fetchedAtOnce],
	build: {
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
							test: /lucide|@zag-js[\\/](core|utils|dom-query|types|store|toast|collapsible|presence)[\\/]|src[\\/]lib[\\/](core[\\/](calendar|money|words|refusals)|ui[\\/]parts[\\/](Field|Form|Money|Choice|DateField|Tick|Places|Table|Pager|Fold|Menu|FilePick|Notices|notices|frame|keys|here|filters)\b)/,
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
	ssr: { external: ['better-sqlite3', 'pdfmake', '@node-rs/argon2', 'nodemailer', 'pino', 'sharp'] }
});
