// Checks the environment and prints the configuration; a wrong variable is named and nothing starts.
import { ConfigError, readConfig } from '../src/lib/server/config';

try {
	process.stdout.write(JSON.stringify(readConfig(process.env)));
} catch (error) {
	if (!(error instanceof ConfigError)) throw error;
	process.stderr.write(`${error.message}\n`);
	process.exit(1);
}
