// What is written on a job sheet, kept a moment after it was.
import type { JobSheetWritten } from '$lib/core/jobs/jobSheet';

const KEEP_MS = 500;

export class SheetKeeper {
	written: JobSheetWritten = $state()!;
	version = $state(0);
	said = $state('');
	lost = $state('');
	errors = $state.raw<Record<string, string>>({});
	#kept: string;
	#waiting: ReturnType<typeof setTimeout> | undefined;
	#saving: Promise<void> = Promise.resolve();
	readonly #id: number;

	constructor(id: number, version: number, written: JobSheetWritten) {
		this.#id = id;
		this.version = version;
		this.written = written;
		this.#kept = JSON.stringify(written);
	}

	/** Something is not kept yet. */
	get waiting(): boolean {
		return JSON.stringify(this.written) !== this.#kept;
	}

	changed(): void {
		if (!this.waiting) return;
		clearTimeout(this.#waiting);
		this.#waiting = setTimeout(() => this.#soon(), KEEP_MS);
	}

	leave(): void {
		clearTimeout(this.#waiting);
		if (this.waiting) this.#soon();
	}

	/** Before it is finished everything has to be kept: the press waits for it, and is then done again. */
	first(event: MouseEvent): void {
		if (!this.waiting) return;
		event.preventDefault();
		const press = event.currentTarget as HTMLButtonElement;
		clearTimeout(this.#waiting);
		this.#soon();
		void this.#saving.then(() => {
			// The version in the form is the new one only after the page has shown it.
			if (!this.waiting) requestAnimationFrame(() => press.click());
		});
	}

	#soon(): void {
		this.#saving = this.#saving.then(() => this.#keep());
	}

	async #keep(): Promise<void> {
		const now = JSON.stringify(this.written);
		if (now === this.#kept) return;
		const response = await fetch(`/work/sheets/${this.#id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ version: this.version, written: JSON.parse(now) as JobSheetWritten }),
			keepalive: true
		}).catch(() => null);
		if (response?.ok) {
			({ version: this.version } = (await response.json()) as { version: number });
			this.#kept = now;
			this.lost = '';
			this.errors = {};
			this.said = `kept ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
			return;
		}
		const answer = (await response?.json().catch(() => null)) as {
			message?: string;
			fields?: Record<string, string>;
		} | null;
		this.errors = answer?.fields ?? {};
		this.said = 'not kept yet';
		this.lost = response
			? Object.keys(this.errors).length
				? ''
				: (answer?.message ?? 'This could not be kept.')
			: 'The connection is lost. What you write is kept when it is back.';
		if (!response) this.#waiting = setTimeout(() => this.#soon(), 3000);
	}
}
