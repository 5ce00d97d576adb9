// A letterhead while it is changed: drawn at once, kept a moment later, taken back step by step.
import type { Look } from '$lib/core/letterheads/look';

/** So long nothing must have changed before it is drawn, and before it is kept. */
const DRAW_MS = 180;
const KEEP_MS = 700;

interface Shown {
	id: number;
	title: string;
}

interface Refusal {
	message?: string;
	fields?: Record<string, string>;
}

export class LookEditor {
	look: Look = $state()!;
	/** What is wrong, by the field it is about. */
	problems = $state.raw<Record<string, string>>({});
	pdf = $state.raw<ArrayBuffer | null>(null);
	/** What is drawn is not what is set any more. */
	stale = $state(false);
	said = $state('');
	lost = $state('');
	conflict = $state(false);
	#about: Shown | null = $state.raw(null);
	#history = $state.raw<string[]>([]);
	#kept: string;
	#drawn = '';
	#version: number;
	readonly #id: number;
	#drawing: ReturnType<typeof setTimeout> | undefined;
	#keeping: ReturnType<typeof setTimeout> | undefined;
	#asked = 0;
	#saving: Promise<void> = Promise.resolve();

	constructor(id: number, version: number, look: Look, about: Shown | null) {
		this.#id = id;
		this.#version = version;
		this.look = look;
		this.#kept = JSON.stringify(look);
		this.#about = about;
	}

	get canUndo(): boolean {
		return this.#history.length > 0;
	}

	get shownName(): string {
		return this.#about?.title ?? 'An example';
	}

	/** Something is not kept yet. */
	get waiting(): boolean {
		return !this.conflict && JSON.stringify(this.look) !== this.#kept;
	}

	changed(): void {
		const now = JSON.stringify(this.look);
		if (now !== this.#drawn) {
			this.stale = this.pdf !== null;
			clearTimeout(this.#drawing);
			this.#drawing = setTimeout(() => void this.#draw(), this.pdf ? DRAW_MS : 0);
		}
		if (now !== this.#kept) {
			this.said = '';
			clearTimeout(this.#keeping);
			this.#keeping = setTimeout(() => this.#keepSoon(), KEEP_MS);
		}
	}

	show(id: number, title: string): void {
		this.#about = { id, title };
		void this.#draw();
	}

	undo(): void {
		const before = this.#history.at(-1);
		if (before === undefined) return;
		this.#history = this.#history.slice(0, -1);
		// What is taken back is no step of its own.
		this.#kept = this.#kept === JSON.stringify(this.look) ? '' : this.#kept;
		this.look = JSON.parse(before) as Look;
	}

	leave(): void {
		clearTimeout(this.#drawing);
		clearTimeout(this.#keeping);
		if (this.waiting) this.#keepSoon();
	}

	async search(typed: string): Promise<(Shown & { detail: string })[] | null> {
		const response = await fetch(`${this.#api}?q=${encodeURIComponent(typed)}`).catch(() => null);
		return response?.ok ? ((await response.json()) as (Shown & { detail: string })[]) : null;
	}

	/** What is drawn, in a page of its own. */
	open(): void {
		if (!this.pdf) return;
		const address = URL.createObjectURL(new Blob([this.pdf], { type: 'application/pdf' }));
		window.open(address, '_blank', 'noopener');
		setTimeout(() => URL.revokeObjectURL(address), 60_000);
	}

	/** @returns whether it was taken */
	async bringLogo(file: File): Promise<string | null> {
		const body = new FormData();
		body.set('file', file);
		const response = await fetch('/settings/letterheads/logo', { method: 'POST', body }).catch(
			() => null
		);
		const answer = (await response?.json().catch(() => null)) as
			(Refusal & { logo?: string; name?: string }) | null;
		if (response?.ok && answer?.logo) {
			this.problems = { ...this.problems, logo: '' };
			this.look.logo = answer.logo;
			return answer.name ?? file.name;
		}
		this.problems = {
			...this.problems,
			logo:
				answer?.fields?.logo ??
				answer?.fields?.file ??
				(response ? 'This could not be taken: at most 8 MB.' : 'The connection is lost. Try again.')
		};
		return null;
	}

	get #api(): string {
		return `/settings/letterheads/${this.#id}/api`;
	}

	async #draw(): Promise<void> {
		const mine = ++this.#asked;
		const now = JSON.stringify(this.look);
		const response = await fetch(this.#api, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ look: JSON.parse(now) as Look, about: this.#about?.id ?? null })
		}).catch(() => null);
		if (mine !== this.#asked) return;
		if (response?.ok) {
			this.pdf = await response.arrayBuffer();
			this.#drawn = now;
			this.problems = {};
			this.lost = '';
			this.stale = false;
			return;
		}
		const refusal = (await response?.json().catch(() => null)) as Refusal | null;
		this.problems = refusal?.fields ?? {};
		this.lost = Object.keys(this.problems).length
			? 'This is not drawn yet: see what is said beside the settings.'
			: (refusal?.message ?? 'The connection is lost. What you change is kept when it is back.');
		if (!response) this.#drawing = setTimeout(() => void this.#draw(), 3000);
	}

	#keepSoon(): void {
		this.#saving = this.#saving.then(() => this.#keep());
	}

	async #keep(): Promise<void> {
		const now = JSON.stringify(this.look);
		if (now === this.#kept || this.conflict) return;
		const response = await fetch(this.#api, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ version: this.#version, look: JSON.parse(now) as Look }),
			keepalive: true
		}).catch(() => null);
		if (response?.ok) {
			const { version } = (await response.json()) as { version: number };
			this.#version = version;
			if (this.#kept) this.#history = [...this.#history.slice(-49), this.#kept];
			this.#kept = now;
			this.said = `kept ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
			return;
		}
		if (response?.status === 409) this.conflict = true;
		else if (response?.status === 422) this.said = 'not kept yet';
		else {
			this.said = 'not kept yet: the connection is lost';
			this.#keeping = setTimeout(() => this.#keepSoon(), 3000);
		}
	}
}
