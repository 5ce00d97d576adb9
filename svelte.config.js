import adapter from './scripts/adapter.mjs';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		adapter: adapter(),
		files: { assets: 'static' },
		csp: {
			mode: 'nonce',
			directives: {
				'default-src': ['self'],
				'script-src': ['self'],
				'style-src': ['self', 'unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'frame-src': ['self', 'blob:'],
				'object-src': ['none'],
				'base-uri': ['none'],
				'frame-ancestors': ['self']
			}
		}
	}
};
