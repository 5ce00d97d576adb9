<!-- A credit note for an invoice, some of its lines, or an amount: what it comes to is seen before it is issued. -->
<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import { FieldError } from '$lib/core/refusals';
	import { frozenFigures } from '$lib/core/documents/frozen';
	import { freezeCredit, leftAfter, readCredit } from '$lib/core/documents/credit';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import { formatDecimal } from '$lib/core/money/decimal';
	import { beyondAfterCredit } from '$lib/core/settlement/position';
	import { displayMoney } from '$lib/core/money/display';
	import Field from '../parts/Field.svelte';
	import Money from '../parts/Money.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import Segments from '../parts/Segments.svelte';
	import Tick from '../parts/Tick.svelte';

	let { document, mail, onclose }: { document: DocumentDetail; mail: string; onclose: () => void } =
		$props();
	const money = (amount: bigint) => displayMoney(amount, document.frozen.sheet.currency);
	let left = $derived(
		leftAfter(
			document.number,
			document.frozen,
			document.creditedBy.map((note) => note.frozen)
		)
	);
	let way = $state<'all' | 'lines' | 'off'>('all');
	let off = $state('');
	let take = $state<Record<string, boolean>>({});
	let quantity = $state<Record<string, string>>({});
	let amount = $state<Record<string, string>>({});
	let lines = $derived(left.lines.filter((line) => line.taxable !== 0n || line.net !== 0n));
	let includes = $derived(document.frozen.sheet.pricesIncludeVat);
	/** Whether some of it is work of a job, which can be billed again. */
	let billsWork = $derived(lines.some(({ row }) => row.bills?.length || row.stageLineId));
	let owed = $derived(
		left.notes.reduce((sum, note) => sum - note.total, frozenFigures(document.frozen).total)
	);

	/** What it would come to now; null where something is missing or wrong, which is said when it is issued. */
	let figures = $derived.by(() => {
		const chosen = Object.entries(take).flatMap(([key, yes]) => (yes ? [[key, 'on']] : []));
		try {
			const wishes = readCredit({ way, off, take: Object.fromEntries(chosen), quantity, amount });
			return freezeCredit(left, { wishes, again: false }, '', document.today).figures;
		} catch (problem) {
			if (problem instanceof FieldError) return null;
			throw problem;
		}
	});
	/** What came in above what is to come then. */
	let paidBeyond = $derived(
		figures && document.item
			? beyondAfterCredit(document.item, {
					total: figures.total,
					deduction: figures.cis?.deduction ?? 0n
				})
			: 0n
	);
</script>

<NeedsScripts />
<section class="panel py-4.5 px-5 mb-3.5" aria-label="Credit it">
	<PanelForm
		action="?/credit"
		submit={figures ? `Issue a credit note for ${money(figures.total)}` : 'Issue the credit note'}
		danger
		done="The credit note is issued."
		first="[name=&quot;reason&quot;]"
		{onclose}
		class="max-w-[760px] gap-3.5"
	>
		{#snippet children(frame)}
			<Field
				label="Why, printed on it"
				name="reason"
				placeholder="such as: work not done, wrong customer"
			/>
			<Segments
				label="What is credited"
				name="way"
				bind:value={way}
				options={[
					{ value: 'all', label: document.creditedBy.length ? 'All that is left' : 'All of it' },
					{ value: 'lines', label: 'Some lines' },
					{ value: 'off', label: 'An amount' }
				]}
			/>
			{#if way === 'lines'}
				<ul class="grid">
					{#each lines as { position, row, quantity: units, taxable } (position)}
						<li
							class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 gap-y-1.5 items-start border-b border-(--hair) py-2 phone:grid-cols-1"
						>
							<label class="check min-h-10"
								><input type="checkbox" name="take.{position}" bind:checked={take[position]} /><span
									class="[overflow-wrap:anywhere]"
									>{row.description.split('\n')[0]}
									<span class="quiet numbers whitespace-nowrap"
										>{formatDecimal(units)}
										{row.unit} · {money(taxable)} left</span
									></span
								></label
							>
							{#if take[position]}
								<div class="flex gap-2.5">
									<Field
										label="How many"
										name="quantity.{position}"
										inputmode="decimal"
										autocomplete="off"
										look="w-[7.5rem]"
										placeholder={formatDecimal(units)}
										bind:value={
											() => quantity[position] ?? '',
											(typed) => {
												quantity[position] = String(typed ?? '');
												if (quantity[position]) amount[position] = '';
											}
										}
									/>
									{#if taxable > 0n}<Money
											currency={document.frozen.sheet.currency}
											label="or off its price"
											name="amount.{position}"
											look="w-[10rem]"
											bind:value={
												() => amount[position] ?? '',
												(typed) => {
													amount[position] = String(typed ?? '');
													if (amount[position]) quantity[position] = '';
												}
											}
										/>{/if}
								</div>
							{/if}
						</li>
					{/each}
				</ul>
			{:else if way === 'off'}
				<Money
					currency={document.frozen.sheet.currency}
					label={includes ? 'How much, with VAT' : 'How much, without VAT'}
					name="off"
					look="max-w-[14rem]"
					hint="Shared over the lines, at the rate of each."
					bind:value={off}
				/>
			{/if}
			{#if frame.error('take')}<p class="wrong" role="alert">{frame.error('take')}</p>{/if}
			<p>
				{#if figures}It takes <b class="numbers">{money(figures.total)}</b>
					off{#if way !== 'all'}, of {money(owed)} that is left{/if}{#if figures.vatCharged},
						{money(figures.vatCharged)} of it VAT{/if}{#if figures.cis?.deduction}.
						{money(figures.cis.deduction)} less is to be deducted{/if}.
					{#if paidBeyond > 0n}<b
							>{money(paidBeyond)} of that is paid: it is theirs, to give back or to use on another invoice.</b
						>{/if}{/if}
				It gets a number of its own and cannot be undone. A bill that is only unpaid is not credited.
			</p>
			{#if billsWork}<Tick name="again" checked
					>The work goes back to be billed again{way === 'off'
						? ' (not where only the price goes down)'
						: ''}</Tick
				>{/if}
			{#if mail}<Tick name="send" checked>E-mail it to {mail}</Tick>{/if}
		{/snippet}
	</PanelForm>
</section>
