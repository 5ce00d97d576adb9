// What a device is asked for a passkey, and what becomes of its answer. The library comes when it is first needed.

/** Why it did not work, in words. */
export class PasskeyError extends Error {}

export const canPasskeys = (): boolean => typeof PublicKeyCredential !== 'undefined';

async function post(address: string, body: object): Promise<Record<string, unknown>> {
	const response = await fetch(address, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(body)
	}).catch(() => null);
	const answer = (await response?.json().catch(() => null)) as Record<string, unknown> | null;
	if (response?.ok && answer) return answer;
	const fields = (answer?.fields ?? {}) as Record<string, string>;
	throw new PasskeyError(
		Object.values(fields)[0] ??
			(typeof answer?.message === 'string' && answer.message
				? answer.message
				: 'This could not be done just now. Try again in a minute.')
	);
}

/** The device may be told to stop, or know the key already. */
async function asked<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (error) {
		const name = error instanceof Error ? error.name : '';
		throw new PasskeyError(
			name === 'InvalidStateError'
				? 'This device has a passkey for you already.'
				: 'The device made no passkey. Try again, or use the password.'
		);
	}
}

/** @throws PasskeyError */
export async function addPasskey(current: string, name: string): Promise<void> {
	const optionsJSON = await post('/you/passkey', { current });
	const { startRegistration } = await import('@simplewebauthn/browser');
	const answer = await asked(() => startRegistration({ optionsJSON: optionsJSON as never }));
	await post('/you/passkey', { answer, name });
}

/** @throws PasskeyError */
export async function signInWithPasskey(): Promise<void> {
	const optionsJSON = await post('/sign-in/passkey', {});
	const { startAuthentication } = await import('@simplewebauthn/browser');
	const answer = await asked(() => startAuthentication({ optionsJSON: optionsJSON as never }));
	await post('/sign-in/passkey', { answer });
}
