// Short notices at the foot of the screen: what happened, and how to take it back.
import { createToaster } from '@skeletonlabs/skeleton-svelte';

export const toaster = createToaster({ placement: 'bottom', max: 3, overlap: false, gap: 8 });

export interface NoticeAction {
	label: string;
	run: () => void;
}

/** What the newest notices offer: until they are gone, Ctrl+Z does it from anywhere. */
const offered: { id: string; action: NoticeAction }[] = [];

export const notices = {
	/** Shows a notice; one with an action stays longer. */
	say(text: string, action?: NoticeAction): void {
		const forget = () => {
			const at = offered.findIndex((one) => one.id === id);
			if (at >= 0) offered.splice(at, 1);
		};
		const id = toaster.create({
			title: text,
			duration: action ? 20_000 : 5_000,
			onStatusChange: ({ status }) => {
				if (status === 'unmounted') forget();
			},
			...(action
				? {
						action: {
							label: action.label,
							onClick: () => {
								forget();
								action.run();
							}
						}
					}
				: {})
		});
		if (action) offered.push({ id, action });
	},

	/** Does what the newest notice offers. False where none offers anything. */
	takeUp(): boolean {
		const last = offered.pop();
		if (!last) return false;
		toaster.dismiss(last.id);
		last.action.run();
		return true;
	}
};
