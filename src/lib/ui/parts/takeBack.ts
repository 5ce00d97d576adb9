// The way back from what a form did: another form's action, posted when “Undo” is pressed or Ctrl+Z.
import { applyAction, deserialize } from '$app/forms';
import { invalidateAll } from '$app/navigation';
import { notices } from './notices.svelte';

export interface WayBack {
	action: string;
	values: Record<string, string | number | null | undefined>;
}

/** The way back from what was removed: its action answers with its place in the bin. */
export const fromBin = ({ bin }: Record<string, unknown>): WayBack | undefined =>
	typeof bin === 'number' ? { action: '/api/bring-back', values: { bin } } : undefined;

/** Posts it, shows what it changed, and says where it could not be done. */
export const takeBack = (way: WayBack): Promise<void> => postAction(way, 'Taken back.');

/** Posts an action from a press that is no form, and says how it went. `back`: offered beside that. */
export async function postAction(
	{ action, values }: WayBack,
	said: string,
	back?: WayBack
): Promise<void> {
	const body = new FormData();
	for (const [name, value] of Object.entries(values)) body.set(name, String(value ?? ''));
	const response = await fetch(action, {
		method: 'POST',
		body,
		headers: { accept: 'application/json', 'x-sveltekit-action': 'true' }
	}).catch(() => null);
	if (!response) return notices.say('The connection is lost. It stands as it was.');
	const result = deserialize(await response.text());
	if (result.type === 'failure' || result.type === 'error') {
		const said = result.type === 'failure' ? result.data : undefined;
		const first = Object.values((said?.fields ?? {}) as Record<string, string>)[0];
		return notices.say(
			first ?? (said?.message as string | undefined) ?? 'That can no longer be taken back.'
		);
	}
	if (result.type === 'redirect') return applyAction(result);
	await invalidateAll();
	notices.say(said, back && { label: 'Undo', run: () => void takeBack(back) });
}
