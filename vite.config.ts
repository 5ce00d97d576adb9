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
						{ name: 'shared', minShareCount: 8, minSize: 0 }
					]
				}
			}
		}
	},
	ssr: { external: ['better-sqlite3', 'pdfmake', '@node-rs/argon2', 'nodemailer', 'pino', 'sharp'] }
});
