// Putting a merge field into the words somebody types.

export type Box = HTMLTextAreaElement | HTMLInputElement;

/** What is written in there, where it takes words. */
export const wordsBox = (target: EventTarget | null): Box | null =>
	target instanceof HTMLTextAreaElement ||
	(target instanceof HTMLInputElement && target.type === 'text' && !target.inputMode)
		? target
		: null;

/** Puts a field where the cursor is, in place of so many letters before it; whoever listens to the box hears of it. */
export function putIn(box: Box, name: string, before = 0): void {
	const at = box.selectionStart ?? box.value.length;
	box.focus();
	box.setRangeText(`{${name}}`, at - before, box.selectionEnd ?? at, 'end');
	box.dispatchEvent(new Event('input', { bubbles: true }));
}
