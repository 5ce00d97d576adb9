import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/', '.demo/', '.test/'] },
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
		files: ['src/lib/ui/**', 'src/routes/**/*.svelte'],
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
	},
	{
		// Time is passed in: only the clock reads the machine's time.
		files: ['src/lib/core/**/*.ts', 'src/lib/server/services/**/*.ts'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{
					selector: "NewExpression[callee.name='Date'][arguments.length=0]",
					message: 'Use the clock.'
				},
				{
					selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
					message: 'Use the clock.'
				},
				{
					// Threads write too: one that reads before it has the lock may find it is too late to write.
					selector: "CallExpression[callee.property.name='transaction']",
					message: 'Use writeAtOnce.'
				}
			]
		}
	}
);
