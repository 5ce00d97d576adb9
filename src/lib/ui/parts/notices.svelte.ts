// Short notices at the foot of the screen: what happened, and how to take it back.
import { createToaster } from '@skeletonlabs/skeleton-svelte';

export const toaster = createToaster({ placement: 'bottom', max: 3, overlap: false, gap: 8 });

export interface NoticeAction {
	label: string;
	run: () => void;
}

export const notices = {
	/** Shows a notice; one with an action stays longer. */
	say(text: string, action?: NoticeAction): void {
		toaster.create({
			title: text,
			duration: action ? 12_000 : 5_000,
			...(action ? { action: { label: action.label, onClick: action.run } } : {})
		});
	}
};
