// A process that accepts a quote and is killed in the moment its job is written: started by a test, in a folder of its own.
import { readConfig } from '../../src/lib/server/config';
import { settableClock } from '../../src/lib/server/clock';
import { openWorld } from '../../src/lib/server/open';
import { acceptQuote } from '../../src/lib/server/services/quotes/accept';
import { loadQuote } from '../../src/lib/server/services/quotes/quotes';

const [folder, now] = process.argv.slice(2) as [string, string];
const world = openWorld(readConfig({ AXIOMETER_DATA: folder }), {
	clock: settableClock(Number(now))
});
world.db.$client.function('die', () => {
	process.kill(process.pid, 'SIGKILL');
	// Nothing goes on meanwhile.
	for (;;);
});
world.db.$client.exec('create temp trigger killed after insert on jobs begin select die(); end');
acceptQuote(
	world,
	1,
	{ key: 'k', n: 1, total: loadQuote(world.db, 1).total, picked: '', name: 'Odile' },
	{ way: 'page', informed: 'page', from: { address: '', agent: '' } }
);
