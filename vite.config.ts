import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
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
						}
					]
				}
			}
		}
	},
	ssr: { external: ['better-sqlite3', 'pdfmake', '@node-rs/argon2', 'nodemailer', 'pino', 'sharp'] }
});
