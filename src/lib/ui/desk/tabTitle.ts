// How much waits, before the title of the tab: seen from whatever else is open beside it.
const EVERY_MS = 60_000;
const COUNT = /^\(\d+\+?\) /;

/** Keeps the figure before the title until it is ended; asks while somebody could see it. */
export function countInTitle(): () => void {
	let waiting = 0;
	let ended = false;
	const title = document.querySelector('title');
	const write = () => {
		const plain = document.title.replace(COUNT, '');
		const wanted = waiting > 0 ? `(${waiting > 99 ? '99+' : waiting}) ${plain}` : plain;
		if (document.title !== wanted) document.title = wanted;
	};
	async function ask() {
		const response = await fetch('/api/waiting').catch(() => null);
		if (ended || !response?.ok) return;
		({ waiting } = (await response.json()) as { waiting: number });
		write();
	}
	// Each page writes its own title; the figure goes before it again.
	const watcher = new MutationObserver(write);
	if (title) watcher.observe(title, { childList: true, characterData: true, subtree: true });
	const first = setTimeout(ask, 1_500);
	const timer = setInterval(ask, EVERY_MS);
	return () => {
		ended = true;
		watcher.disconnect();
		clearTimeout(first);
		clearInterval(timer);
	};
}
