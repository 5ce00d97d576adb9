// What a signature says, in the words of whoever signs.

export const SIGNED_WORDS: Readonly<Record<'received' | 'accepted' | 'done', string>> = {
	received: 'I have received this invoice.',
	accepted: 'The work is done, and I accept it.',
	done: 'This was done, as it stands here.'
};

/** What is said of where it was signed from, beside every place to sign. */
export const KEPT_WORDS =
	'Your name and signature, the time, and where it came from are kept for six years.';
