// The stand-ins as plain scripts beside the build, so that each begins at once.
import { defineConfig } from 'vite';

const NAMES = ['mail', 'card', 'text', 'bank'];

export default defineConfig({
	build: {
		ssr: true,
		target: 'node20',
		outDir: 'build/stand-ins',
		emptyOutDir: true,
		rollupOptions: {
			input: Object.fromEntries(NAMES.map((name) => [name, `stand-ins/${name}/main.ts`])),
			output: { entryFileNames: '[name].js' }
		}
	}
});
