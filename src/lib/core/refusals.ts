// What services say when something cannot be done: in words for the person, at the field where it belongs.

export class FieldError extends Error {
	/** Messages by field path. */
	constructor(readonly fields: Record<string, string>) {
		super(Object.values(fields)[0] ?? 'Something is wrong with what was given.');
		this.name = 'FieldError';
	}
}

/** Someone else, or another tab, changed it first. */
export class ConflictError extends Error {
	constructor(message = 'This was changed in another tab in the meantime.') {
		super(message);
		this.name = 'ConflictError';
	}
}

export class NotFoundError extends Error {
	constructor(what: string) {
		super(`${what} is not here, or not any more.`);
		this.name = 'NotFoundError';
	}
}

/** It was asked for in a state in which it cannot be done. */
export class RefusedError extends Error {
	constructor(message: string) {
		super(message);
		this.name = 'RefusedError';
	}
}

/** Whoever asks has not the role for it. */
export class ForbiddenError extends RefusedError {
	constructor() {
		super('Your role does not open this. Ask the owner.');
		this.name = 'ForbiddenError';
	}
}
