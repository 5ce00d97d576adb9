// What a form action answered: done, or refused with messages at the fields.

export type FormAnswer =
	| {
			done?: string;
			message?: string;
			fields?: Record<string, string>;
			values?: Record<string, unknown>;
			creditNote?: { id: number; number: string };
	  }
	| null
	| undefined;

export function fieldsOf(form: FormAnswer): Record<string, string> {
	return form?.fields ?? {};
}

/** What was typed before it was refused. */
export function typedOf(form: FormAnswer, name: string): string | undefined {
	const value = form?.values?.[name];
	return typeof value === 'string' ? value : undefined;
}
