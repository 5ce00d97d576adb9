// What goes wrong with the disk, in words: a request that met it has saved nothing, and nothing that was saved before is lost.

const WORDS: readonly (readonly [RegExp, string])[] = [
	[
		/^(SQLITE_FULL|ENOSPC|EDQUOT)/,
		'There is no room left on the disk. Nothing was saved by this; make room, and press again.'
	],
	[
		/^(SQLITE_READONLY|EROFS|SQLITE_CANTOPEN|EACCES|EPERM)/,
		'Axiometer may not write to its data folder just now. Nothing was saved by this; press again when it may.'
	],
	[
		/^(SQLITE_BUSY|SQLITE_LOCKED)/,
		'Another program holds the data file. Nothing was saved by this; end it, and press again.'
	],
	[
		/^(SQLITE_IOERR|EIO)/,
		'The disk does not answer as it should. Nothing was saved by this. Make a backup onto another disk before you go on.'
	],
	[
		/^(SQLITE_CORRUPT|SQLITE_NOTADB)/,
		'The data file is damaged. Stop Axiometer, keep the file as it is, and restore a backup.'
	]
];

/** Null where it is not about the disk. What a library wraps is looked into. */
export function troubleOf(problem: unknown): string | null {
	for (let one = problem; one instanceof Error; one = one.cause) {
		const code = (one as NodeJS.ErrnoException).code ?? '';
		for (const [fits, words] of WORDS) if (fits.test(code)) return words;
	}
	return null;
}
