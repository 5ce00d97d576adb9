// How soon a password is guessed: against the commonest of the world, keys in a row, and the ways in which people alter them.
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

let guesser: ZxcvbnFactory | undefined;

/** Of five steps: below this one it falls to a patient stranger, or to whoever has the file. */
const ENOUGH = 2;

/** Whether a password is among those that are tried first. */
export function isEasyToGuess(password: string): boolean {
	guesser ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
	return guesser.check(password.slice(0, 60), ['axiometer']).score < ENOUGH;
}
