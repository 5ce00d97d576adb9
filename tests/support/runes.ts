// Modules with runes, as they run in the browser: compiled for the test that holds them.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { compileModule } from 'svelte/compiler';
import ts from 'typescript';

/** Loads a `.svelte.ts` module that imports nothing but types. */
export async function loadRunes<T>(path: string): Promise<T> {
	const plain = ts.transpileModule(readFileSync(path, 'utf8'), {
		compilerOptions: { target: ts.ScriptTarget.ESNext, module: ts.ModuleKind.ESNext }
	}).outputText;
	const { js } = compileModule(plain, { filename: path, generate: 'client' });
	const folder = resolve('node_modules/.cache/runes');
	mkdirSync(folder, { recursive: true });
	const file = resolve(folder, `${basename(path, '.svelte.ts')}-${process.pid}.mjs`);
	writeFileSync(file, js.code);
	try {
		return (await import(pathToFileURL(file).href)) as T;
	} finally {
		rmSync(file);
	}
}
