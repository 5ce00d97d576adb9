// What is unsafe about how Axiometer runs here: said on the console at each start.
import type { Config } from './config';
import { backupSetting } from './services/keep/backups';
import { hasOwner } from './services/business/signIn';
import type { World } from './world';

const LOOPBACK = /^(localhost|127\.\d+\.\d+\.\d+|::1)$/;

/** A line for each; empty where nothing is. The demo is nobody's business. */
export function unsafe(world: World, config: Config): string[] {
	if (config.demo) return [];
	const said: string[] = [];
	const { hostname, protocol } = new URL(config.origin);
	if (protocol === 'http:' && !LOOPBACK.test(hostname))
		said.push(
			`It is reached at ${config.origin} without encryption: whoever is on the way reads along. Put a proxy with TLS in front, and set AXIOMETER_ORIGIN to its https address.`
		);
	if (!LOOPBACK.test(config.host) && config.proxies === 0)
		said.push(
			`It listens at ${config.host}, for every machine that reaches this one, and not behind a proxy. Set AXIOMETER_HOST=127.0.0.1, or AXIOMETER_PROXIES where a proxy stands in front.`
		);
	if (!hasOwner(world)) return said;
	if (config.standIns)
		said.push(
			'Mail, texts, cards and the bank are stand-ins: nothing of it reaches anybody. AXIOMETER_STAND_INS=0 and your own services: docs/operations.md.'
		);
	if (!backupSetting(world.db).folder)
		said.push(
			'Backups lie beside the data alone: a lost disk loses both. Name a second place under Settings, Backups and your data.'
		);
	return said;
}
