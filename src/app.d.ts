import type { Config } from '$lib/server/config';
import type { Actor } from '$lib/server/actor';
import type { World } from '$lib/server/world';

declare global {
	/** Set by `app.html`: commands and the button pressed before the page has come to life. */
	interface Window {
		earlyKeys: string[];
		keepKey: (event: KeyboardEvent) => void;
		earlyPress?: HTMLButtonElement;
		keepPress: (event: MouseEvent) => void;
	}
	namespace App {
		interface Locals {
			world: World;
			config: Config;
			signedIn: boolean;
			/** Who is signed in. */
			person: Actor | null;
			/** Closes the data file, has another put in its place, and goes on with that. */
			reopen: (work: () => Promise<unknown>) => Promise<void>;
		}
	}
}

export {};
