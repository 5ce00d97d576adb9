import { lineTagsInUse } from '$lib/server/services/business/lineTags';
import { restingSince } from '$lib/server/services/business/resting';
import { workKindsInUse } from '$lib/server/services/business/workKinds';
import { letterheadsInUse } from '$lib/server/services/letterheads/letterheads';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ locals }) => ({
	demo: locals.config.demo,
	person: locals.person?.id ?? 0,
	/** Who looks at it, and what they may open. */
	role: locals.person?.role ?? ('owner' as const),
	today: locals.world.clock.today(),
	resting: restingSince(locals.world.db) !== undefined,
	/** What can be chosen wherever a customer, a job or a document is written. */
	offers: {
		workKinds: workKindsInUse(locals.world.db),
		letterheads: letterheadsInUse(locals.world.db),
		lineTags: lineTagsInUse(locals.world.db)
	}
});
