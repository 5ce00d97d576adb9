// Short notices at the foot of the screen: what happened, and how to take it back.

export interface NoticeAction {
	label: string;
	run: () => void;
}

interface Offered {
	id: string;
	action: NoticeAction;
}

/** What the newest notices offer: until they are gone, Ctrl+Z does it from anywhere. */
const offered: Offered[] = [];
const forget = (id: string) => {
	const at = offered.findIndex((one) => one.id === id);
	if (at >= 0) offered.splice(at, 1);
};

let count = 0;
let said: (() => void) | null = null;
const toasts = () => import('./toaster').then(({ toaster }) => toaster);

export const notices = {
	/** Shows a notice; one with an action stays longer. */
	say(text: string, action?: NoticeAction): void {
		const id = `notice-${(count += 1)}`;
		if (action) offered.push({ id, action });
		said?.();
		void toasts().then(
			(toaster) =>
				toaster.create({
					id,
					title: text,
					duration: action ? 20_000 : 5_000,
					onStatusChange: ({ status }) => {
						if (status === 'unmounted') forget(id);
					},
					...(action
						? {
								action: {
									label: action.label,
									onClick: () => {
										forget(id);
										action.run();
									}
								}
							}
						: {})
				}),
			() => forget(id)
		);
	},

	/** Does what the newest notice offers. False where none offers anything. */
	takeUp(): boolean {
		const last = offered.pop();
		if (!last) return false;
		void toasts().then(
			(toaster) => toaster.dismiss(last.id),
			() => undefined
		);
		last.action.run();
		return true;
	},

	/** Tells whoever shows them that there is one to be shown. Ended by what it gives back. */
	whenSaid(tell: () => void): () => void {
		said = tell;
		if (count > 0) tell();
		return () => {
			if (said === tell) said = null;
		};
	}
};
