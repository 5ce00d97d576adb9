// One listener for a stream that is written piece by piece. The compressing answer passes a listener for `drain` on to what it packs with,
// and never takes it away again: whoever waits anew before each piece would leave thousands behind, all of them called each time.

/** Whoever waits for room on this answer is called once, by one listener. @param {import('node:http').ServerResponse} response */
export function oneDrain(response) {
	const once = response.once.bind(response);
	/** @type {((...given: any[]) => void)[]} */
	const waiting = [];
	let listening = false;
	response.once = (type, listener) => {
		if (type !== 'drain') return once(type, listener);
		waiting.push(listener);
		if (!listening) response.on('drain', () => waiting.splice(0).forEach((one) => one()));
		listening = true;
		return response;
	};
}
