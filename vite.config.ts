import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: { rolldownOptions: { checks: { pluginTimings: false } } },
	ssr: { external: ['better-sqlite3', 'pdfmake', '@node-rs/argon2', 'nodemailer', 'pino', 'sharp'] }
});
