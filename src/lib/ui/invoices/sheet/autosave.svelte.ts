// Saving as one types. What is typed is kept in this browser until the server has it; a failed save is tried
// again; another tab is told and never overwritten.
import type { Sheet } from '$lib/core/sheet/types';

export type SaveState =
	'saved' | 'typing' | 'saving' | 'waiting' | 'conflict' | 'gone' | 'signedOut';

interface Backup {
	version: number;
	sheet: Sheet;
}

const WAIT_MS = 350;
const RETRY_MS = [1000, 2000, 5000, 10_000];

export class Autosave {
	state = $state<SaveState>('saved');
	savedAt = $state<number>(0);
	/** What the server said when it refused. */
	message = $state('');
	/** Another tab has the same draft open. */
	alsoOpen = $state(false);
	version: number;

	#place: string;
	#saved: string;
	#pending: string | null = null;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#failures = 0;
	#running: Promise<void> | null = null;
	#channel: BroadcastChannel | null = null;

	/** @param place where it is saved: `/billing/7`, `/work/quotes/7` */
	constructor(
		draft: { id: number; version: number; sheet: Sheet; savedAt: number },
		place = `/billing/${draft.id}`
	) {
		this.#place = place;
		this.version = draft.version;
		this.savedAt = draft.savedAt;
		this.#saved = JSON.stringify(draft.sheet);
	}

	get #key(): string {
		return `axiometer-draft-${this.#place.replace(/^\/billing\//, '')}`;
	}

	/** What this browser kept and the server never got: to be taken up again, or offered where both changed. */
	leftover(): { sheet: Sheet; clash: boolean } | null {
		const text = readStored(this.#key);
		if (!text) return null;
		try {
			const backup = JSON.parse(text) as Backup;
			if (JSON.stringify(backup.sheet) === this.#saved) return null;
			return { sheet: backup.sheet, clash: backup.version !== this.version };
		} catch {
			return null;
		}
	}

	forget(): void {
		localStorage.removeItem(this.#key);
	}

	/** Begins to talk with other tabs and to notice the line coming back; the returned function ends it. */
	begin(): () => void {
		this.#channel = new BroadcastChannel(this.#key);
		this.#channel.onmessage = ({ data }: MessageEvent<{ type: string; version: number }>) => {
			if (data.type === 'hello') {
				this.alsoOpen = true;
				this.#channel?.postMessage({ type: 'here', version: this.version });
			} else if (data.type === 'here') this.alsoOpen = true;
			else if (data.type === 'bye') this.alsoOpen = false;
			else if (data.type === 'saved' && data.version > this.version) this.#conflict();
		};
		this.#channel.postMessage({ type: 'hello', version: this.version });
		const online = () => this.#pending !== null && this.#soon(0);
		const leave = () => {
			this.#channel?.postMessage({ type: 'bye', version: this.version });
			this.#saveOnLeaving();
		};
		window.addEventListener('online', online);
		window.addEventListener('pagehide', leave);
		return () => {
			leave();
			clearTimeout(this.#timer);
			window.removeEventListener('online', online);
			window.removeEventListener('pagehide', leave);
			this.#channel?.close();
			this.#channel = null;
			if (this.#pending !== null) void this.flush();
		};
	}

	/** Takes the sheet as it is now; called at every change. */
	changed(json: string): void {
		if (json === (this.#pending ?? this.#saved)) return;
		if (this.state === 'gone') return;
		this.#pending = json;
		store(this.#key, `{"version":${this.version},"sheet":${json}}`);
		if (this.state === 'conflict') return;
		if (this.state !== 'saving') this.state = 'typing';
		this.#soon(WAIT_MS);
	}

	#soon(ms: number): void {
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.flush(), ms);
	}

	/** Saves now whatever is not saved yet. True where the server has everything. */
	async flush(): Promise<boolean> {
		clearTimeout(this.#timer);
		while (this.#running) await this.#running;
		if (this.state === 'conflict' || this.state === 'gone') return false;
		if (this.#pending === null) return true;
		this.#running = this.#save(this.#pending).finally(() => (this.#running = null));
		await this.#running;
		return this.#pending === null;
	}

	/** The last keystrokes go out with the page; what does not arrive is still kept in this browser. */
	#saveOnLeaving(): void {
		if (this.#pending === null || this.#running || this.state === 'conflict') return;
		this.#put(this.#pending, true).catch(() => undefined);
	}

	#put(json: string, keepalive = false): Promise<Response> {
		return fetch(`${this.#place}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: `{"version":${this.version},"sheet":${json}}`,
			keepalive
		});
	}

	async #save(json: string): Promise<void> {
		this.state = 'saving';
		let response: Response;
		try {
			response = await this.#put(json);
		} catch {
			return this.#later(
				'The connection is lost. What you type is kept here and saved when it is back.'
			);
		}
		if (response.ok) {
			const { version, savedAt } = await response.json();
			this.version = version;
			this.savedAt = savedAt;
			this.#saved = json;
			this.#failures = 0;
			this.message = '';
			this.#channel?.postMessage({ type: 'saved', version });
			if (this.#pending === json) {
				this.#pending = null;
				this.state = 'saved';
				this.forget();
			} else {
				store(this.#key, `{"version":${version},"sheet":${this.#pending}}`);
				this.state = 'typing';
				this.#soon(WAIT_MS);
			}
		} else if (response.status === 409) this.#conflict();
		else if (response.status === 401) {
			this.state = 'signedOut';
			this.message =
				'You have been signed out. Sign in again in another tab: what you typed is kept here.';
			this.#soon(5000);
		} else if (response.status === 404 || response.status === 410) {
			this.state = 'gone';
			this.message =
				(await response.json().catch(() => null))?.message ?? 'This draft is not here any more.';
		} else
			this.#later('It could not be saved just now. What you type is kept here and tried again.');
	}

	#later(message: string): void {
		this.state = 'waiting';
		this.message = message;
		this.#soon(RETRY_MS[Math.min(this.#failures++, RETRY_MS.length - 1)]!);
	}

	#conflict(): void {
		this.state = 'conflict';
		this.message = 'This draft was changed in another tab. Nothing was overwritten.';
	}
}

function readStored(key: string): string | null {
	try {
		return localStorage.getItem(key);
	} catch {
		return null;
	}
}

function store(key: string, value: string): void {
	try {
		localStorage.setItem(key, value);
	} catch {
		// A full or forbidden store: the server still gets everything.
	}
}
