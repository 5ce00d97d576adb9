<!-- What was done for this customer and is on no invoice yet: put on this one with a press. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { isBlank } from '$lib/core/sheet/blank';
	import type { Sheet } from '$lib/core/sheet/types';
	import { notices } from '../../parts/notices.svelte';
	import type { Draft } from '../../lines/draft.svelte';

	interface Offer {
		id: number;
		number: string;
		title: string;
		amount: number;
		finishedOn: string | null;
		sheet: Sheet;
	}
	let { draft }: { draft: Draft } = $props();
	const SHOWN = 4;
	let offers = $state.raw<Offer[]>([]);
	let customerId = $derived(draft.customer?.id ?? null);
	let bare = $derived(draft.sheet.rows.every(isBlank));
	let taken = $derived(
		new Set(
			draft.sheet.rows.flatMap((row) => (row.type === 'line' && row.jobId ? [row.jobId] : []))
		)
	);
	let open = $derived(offers.filter(({ id }) => !taken.has(id)));

	$effect(() => {
		const asked = customerId;
		offers = [];
		if (asked === null) return;
		void fetch(`/billing/${draft.id}/api/unbilled?customer=${asked}`)
			.then(async (response) => {
				const answer = response.ok ? await response.json() : [];
				if (asked === customerId) offers = answer;
			})
			.catch(() => undefined);
	});

	/** Why a job cannot join what already stands here; empty where it can. */
	function apart({ sheet }: Offer): string {
		if (bare) return '';
		if (sheet.pricesIncludeVat !== draft.sheet.pricesIncludeVat)
			return `its prices are ${sheet.pricesIncludeVat ? 'with' : 'without'} VAT`;
		if (sheet.contract !== draft.sheet.contract) return 'its contract is of another class';
		return (sheet.billToId ?? null) !== (draft.sheet.billToId ?? null)
			? 'its bill goes to somebody else'
			: '';
	}

	function take(offer: Offer) {
		draft.takeWork(offer.sheet, bare);
		notices.say(`${offer.number} is on this invoice now.`);
	}
</script>

{#if open.length}
	<section class="panel py-3 px-4.5 mb-3.5 grid gap-1.5" aria-label="Not billed yet">
		<h2 class="text-base [font-family:inherit]">
			Done for {draft.customer?.name} and not billed yet
		</h2>
		<ul>
			{#each open.slice(0, SHOWN) as offer (offer.id)}
				{@const why = apart(offer)}
				<li class="flex gap-x-3 gap-y-1 items-center flex-wrap min-h-10">
					<span class="flex-[1_1_220px] min-w-0 wrap-anywhere"
						><span class="mono quiet">{offer.number}</span>
						{offer.title}
						<span class="quiet"
							>{offer.finishedOn
								? `finished ${displayDate(offer.finishedOn)}`
								: 'time and materials so far'}</span
						></span
					>
					<b class="numbers">{displayPounds(offer.amount)}</b>
					{#if why}<a class="quiet" href="/work/{offer.id}">by itself: {why}</a>
					{:else}<button class="button" onclick={() => take(offer)}
							>Put it on here<span class="sr-only">: {offer.number} {offer.title}</span></button
						>{/if}
				</li>
			{/each}
		</ul>
		{#if open.length > SHOWN}<p class="quiet">
				and {open.length - SHOWN} more: <a href="/work/bill">bill them in one go</a>
			</p>{/if}
	</section>
{/if}
