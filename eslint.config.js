import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

// Svelte's files alone: all others have the same rules from oxlint, in `.oxlintrc.json`, in a fraction of the time.
export default ts.config(
	{
		ignores: [
			...['build/', '.svelte-kit/', 'node_modules/', 'data/', '.demo/', '.test/'],
			'**/*.{js,mjs,cjs,ts}',
			'!**/*.svelte.ts'
		]
	},
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'no-undef': 'off',
			// Maps and URL parameters here are made anew by deriveds and never changed in place.
			'svelte/prefer-svelte-reactivity': 'off',
			'svelte/no-navigation-without-resolve': 'off',
			'@typescript-eslint/no-unused-vars': [
				'error',
				{ argsIgnorePattern: '^_', varsIgnorePattern: '^_' }
			]
		}
	},
	{
		// Types are svelte-check's affair: to parse with them here as well took four times as long.
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: {
			parserOptions: {
				extraFileExtensions: ['.svelte'],
				parser: ts.parser,
				svelteConfig
			}
		}
	},
	{
		// dependency-cruiser does not read Svelte files; this is the same rule for them.
		files: ['src/lib/ui/**/*.svelte', 'src/routes/**/*.svelte'],
		rules: {
			'no-restricted-imports': [
				'error',
				{
					patterns: [
						{ group: ['$lib/server/**', '**/server/**'], message: 'The interface knows no server.' }
					]
				}
			]
		}
	}
);
