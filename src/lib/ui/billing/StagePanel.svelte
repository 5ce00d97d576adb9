<!-- Where a contract stands: contract sum, extras, billed, left; its stages, and what is held back. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { plannedStage, type ContractPosition } from '$lib/core/jobs/stages';
	import { displayPounds } from '$lib/core/money/display';
	import Money from '../parts/Money.svelte';

	interface Stage {
		id: number;
		kind: string;
		basis: string;
		state: 'applied' | 'invoiced' | 'dropped';
		amount: number;
		applicationNumber: string | null;
		appliedOn: string | null;
		documentId: number | null;
		number: string | null;
		documentState: string | null;
	}
	interface Retention {
		documentId: number;
		number: string | null;
		amount: number;
		dueOn: string;
		releasedById: number | null;
	}
	interface Props {
		jobId: number;
		position: ContractPosition;
		stages: Stage[];
		retentions: Retention[];
		canStage: boolean;
		/** What was agreed to be paid when, in pence with VAT. */
		plan?: readonly { title: string; amount: number }[];
		/** The amounts of the plan are those the job is priced in. */
		exact?: boolean;
		today: string;
	}
	let {
		jobId,
		position,
		stages,
		retentions,
		canStage,
		plan = [],
		exact = true,
		today
	}: Props = $props();
	let standing = $derived(stages.filter((stage) => stage.state !== 'dropped'));
	let held = $derived(retentions.filter((one) => one.releasedById === null));
	let heldSum = $derived(held.reduce((sum, one) => sum + one.amount, 0));
	let whole = $derived(position.contractSum + position.extras);
	let next = $derived(plannedStage(plan, standing.length, exact));
	let nextHref = $derived(
		`/work/${jobId}/stage${next ? `?by=${next.by}&kind=${next.kind}${next.value ? `&${next.by}=${next.value}` : ''}` : ''}`
	);
	let part = $derived(whole > 0n ? Number((position.billed * 1000n) / whole) / 10 : 0);
</script>

<section class="panel py-4 px-4.5 grid gap-2.5 justify-items-start">
	<h2>Contract</h2>
	<dl class="numbers w-full [&_div]:flex [&_div]:justify-between [&_div]:py-0.75 [&_div]:px-0">
		<div>
			<dt class="text-(--ink-2)">Agreed</dt>
			<dd>{displayPounds(position.contractSum)}</dd>
		</div>
		{#if position.extras}<div>
				<dt class="text-(--ink-2)">Extras</dt>
				<dd>{displayPounds(position.extras)}</dd>
			</div>{/if}
		{#if standing.length}
			<div>
				<dt class="text-(--ink-2)">Billed in stages</dt>
				<dd>{displayPounds(position.billed)}</dd>
			</div>
			<div class="sum border-t-[1.5px] border-t-(--ink) font-semibold">
				<dt class="text-(--ink-2)">Left</dt>
				<dd>{displayPounds(position.left)}</dd>
			</div>
		{/if}
	</dl>
	{#if standing.length}
		<div
			class="w-full h-3 [background:repeating-linear-gradient(90deg,var(--ink)_0_1px,transparent_1px_10%),var(--plaster)] border border-(--hair)"
			role="img"
			aria-label="{part} % of the contract is billed"
		>
			<span class="block h-full bg-(--tape) border-r-2 border-r-(--ink)" style:width="{part}%"
			></span>
		</div>
		<ol class="w-full">
			{#each standing as stage (stage.id)}
				<li
					class="grid grid-cols-[1fr_auto] gap-y-0.5 gap-x-2.5 py-2 px-0 border-b border-b-(--hair)"
				>
					<span class="*:mr-1.5"
						>{#if stage.documentId}<a href="/billing/{stage.documentId}"
								>{stage.number ?? 'Draft'}</a
							>{:else}{stage.applicationNumber}{/if}
						<span class="quiet *:mr-1.5">{stage.basis}</span></span
					>
					<b class="numbers">{displayPounds(stage.amount)}</b>
					{#if stage.applicationNumber}<a
							class="pdf col-span-full"
							href="/work/{jobId}/application/{stage.id}"
							>Application {stage.applicationNumber}, PDF</a
						>{/if}
					{#if stage.state === 'applied'}
						<Form
							class="col-span-full flex flex-wrap gap-2 items-end"
							action="?/approve"
							hidden={{ stage: stage.id }}
						>
							<Money
								label="Approved"
								look="flex-[1_1_120px]"
								name="amount"
								placeholder={(stage.amount / 100).toFixed(2)}
							/>
							<DateField label="Paid on, if it was" name="paidOn" max={today} />
							<button class="button">Make the VAT invoice</button>
							<button class="button plain" formaction="?/withdraw">Withdraw</button>
						</Form>
					{/if}
				</li>
			{/each}
		</ol>
	{/if}
	{#if held.length}
		<p>
			<b class="numbers">{displayPounds(heldSum)}</b> is held back, due from {displayDate(
				held[0]!.dueOn
			)}.
		</p>
		<Form action="?/release" keyed>
			<button class="button">Release the retention</button>
		</Form>
	{/if}
	{#if plan.length}<ol class="w-full" aria-label="Paid so">
			{#each plan as { title, amount }, index (index)}<li
					class="flex justify-between gap-3 border-b border-b-(--hair) py-1.5"
				>
					<span class={index === standing.length ? 'font-semibold' : 'quiet'}
						>{title}{index < standing.length ? ', billed' : ''}</span
					><span class="numbers">{displayPounds(amount)}</span>
				</li>{/each}
		</ol>{/if}
	{#if canStage && position.left > 0n}
		<a class="button" href={nextHref}
			>{next
				? `Bill “${next.title}”`
				: standing.length
					? 'Bill the next stage'
					: 'Bill in stages'}</a
		>
	{/if}
</section>
