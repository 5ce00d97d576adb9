// Work in a process of its own, so that nobody waits for it, and what it must not touch it cannot.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { constants, setPriority } from 'node:os';

export interface Ran {
	status: number | null;
	said: string;
	complaint: string;
}

/** Runs a script of the source tree with this Node, and says how it ended. */
export async function ran(args: readonly string[], env: NodeJS.ProcessEnv = {}): Promise<Ran> {
	const child = spawn(process.execPath, args, {
		env: { ...process.env, ...env },
		stdio: ['ignore', 'pipe', 'pipe']
	});
	try {
		// Whoever answers everybody goes first.
		if (child.pid !== undefined) setPriority(child.pid, constants.priority.PRIORITY_BELOW_NORMAL);
	} catch {
		// It has ended already.
	}
	let said = '';
	let complaint = '';
	child.stdout.on('data', (part) => (said += part));
	child.stderr.on('data', (part) => (complaint += part));
	const [status] = (await once(child, 'close')) as [number | null];
	return { status, said, complaint: complaint.trim().slice(0, 500) };
}

/** What the audit finds, from outside: in the books of a folder, or in a copy by its name. @throws where it could not be done */
export async function audited(
	args: readonly string[],
	env: NodeJS.ProcessEnv = {}
): Promise<string[]> {
	const script = ['--import', 'tsx', 'scripts/audit/run.ts', '--json'];
	const { status, said, complaint } = await ran([...script, ...args], env);
	if (status !== 0 && status !== 1) throw new Error(`the audit ended with ${status}: ${complaint}`);
	return JSON.parse(said) as string[];
}
