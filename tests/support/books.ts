// What every test of money ends with: the audit, looking from outside, finds nothing.
import { expect } from 'chai';
import { auditBooks } from '../../scripts/audit/books';
import type { Database } from '../../src/lib/server/db/connection';

export function expectSoundBooks(db: Pick<Database, '$client'>, after?: string): void {
	expect(auditBooks(db.$client).join('\n'), after).to.equal('');
}
