// Short notices at the foot of the screen: what happened, and how to take it back.

export interface Notice {
	id: number;
	text: string;
	action?: { label: string; run: () => void };
}

class Notices {
	list = $state<Notice[]>([]);
	#next = 1;

	/** Shows a notice; one with an action stays longer. */
	say(text: string, action?: Notice['action']): void {
		const id = this.#next++;
		this.list = [...this.list.slice(-2), { id, text, ...(action ? { action } : {}) }];
		setTimeout(() => this.dismiss(id), action ? 12_000 : 5_000);
	}

	dismiss(id: number): void {
		this.list = this.list.filter((notice) => notice.id !== id);
	}
}

export const notices = new Notices();
