// What a form's frame tells the boxes in it: what is wrong with them, and what was typed before.
import { getContext, setContext } from 'svelte';

export interface Frame {
	/** What is wrong with the box of this name. Who asks shows it. */
	error(name: string): string | undefined;
	/** What had been typed when the form was refused without scripts. */
	kept(name: string): unknown;
	/** Says that a box shows its own message, so that the frame need not. */
	claim(name: string): void;
}

/** The state of a form as its action answers it. */
export interface FormState {
	id: string;
	valid: boolean;
	posted: boolean;
	errors: Record<string, string[] | undefined>;
	data: Record<string, unknown>;
	message?: string;
}

const FRAME = Symbol('frame');

export const setFrame = (frame: Frame): Frame => setContext(FRAME, frame);

/** The frame around a box with this name; nothing where it stands in none. */
export function frameOf(name: string | undefined): Frame | undefined {
	const frame = getContext<Frame | undefined>(FRAME);
	if (name) frame?.claim(name);
	return frame;
}

/** The answer an action gave to the form of this id, where the page came with one. */
export function answerTo(id: string, answer: unknown): FormState | undefined {
	if (typeof answer !== 'object' || answer === null || !('form' in answer)) return undefined;
	const form = answer.form as FormState;
	return form?.id === id ? form : undefined;
}

let alive = false;
/** A page that came with an answer shows it as it comes to life; a form opened later begins afresh. */
export const comesWithAnswer = (): boolean => !alive;
export const nowAlive = (): void => {
	alive = true;
};
