<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { invalidateAll } from '$app/navigation';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount } from '$lib/core/money/display';

	let { data } = $props();
	let of = $derived(data.rows.length);
	let on = $derived(data.rows.filter((row) => row.mail === 'queued' || row.mail === 'sending'));
	let lost = $derived(data.rows.filter((row) => row.mail === 'failed' || row.mail === 'unsure'));
	let skipped = $derived(data.rows.filter((row) => row.state === 'skipped'));
	const MAILS = {
		queued: 'on its way',
		sending: 'on its way',
		sent: 'arrived',
		failed: 'did not arrive',
		unsure: 'may not have arrived',
		withdrawn: 'taken back'
	};
	$effect(() => {
		if (data.run.state === 'done' && !data.rows.some((row) => row.mail === 'queued')) return;
		const timer = setTimeout(() => void invalidateAll(), 700);
		return () => clearTimeout(timer);
	});
</script>

<svelte:head><title>Statements · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a> · <a href="/owed/statements">Statements</a></p>
	<h1>Statements of {displayMoment(data.run.createdAt)}</h1>
	<div
		class="panel py-3.5 px-4.5 my-3 mx-0 flex flex-wrap gap-y-2.5 gap-x-4.5 items-center justify-between"
	>
		{#if data.run.state === 'running'}
			<p role="status">
				{data.done} of {of} done. You can leave this page: it goes on by itself.
			</p>
			<Progress value={data.done} max={of} label="Progress of the statements" />
		{:else}
			<p role="status">
				<b>{of - skipped.length} {data.run.action === 'send' ? 'sent' : 'made'}</b>{on.length
					? `, ${on.length} of them still on the way`
					: ''}{lost.length ? `; ${lost.length} did not arrive` : ''}{skipped.length
					? `; ${skipped.length} could not go: ${skipped
							.map((row) => row.payer)
							.slice(0, 4)
							.join(', ')}${skipped.length > 4 ? ' and others' : ''} without an e-mail address`
					: ''}. As of {displayDate(data.run.options.asOf)}.
			</p>
			<a class="button" href="/owed/statements/{data.run.id}/pdf" target="_blank"
				>One PDF of all to print</a
			>
		{/if}
	</div>
	<ul class="panel">
		{#each data.rows as row (row.id)}
			<li
				class="grid grid-cols-[minmax(0,1fr)_210px_50px_110px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 border-b border-b-(--hair) last:border-b-0 phone:grid-cols-[minmax(0,1fr)_auto] phone:py-2.25 phone:px-3"
			>
				<span class="who"
					><a class="block wrap-anywhere font-semibold" href="/owed/{row.payerId}">{row.payer}</a
					><span class="quiet block wrap-anywhere" class:late={row.state === 'skipped'}
						>{row.note}</span
					></span
				>
				<span class="quiet" class:late={row.mail === 'failed' || row.mail === 'unsure'}
					>{row.state === 'waiting'
						? 'waiting'
						: row.openedAt
							? `opened ${displayMoment(row.openedAt)}`
							: row.mail
								? MAILS[row.mail]
								: row.state === 'skipped'
									? 'not sent'
									: 'made'}</span
				>
				{#if row.mailId && (row.mail === 'failed' || row.mail === 'unsure')}
					<Form
						class="again col-span-full row-start-2 flex flex-wrap gap-y-2 gap-x-3.5 items-center"
						action="?/again"
						hidden={{ mail: row.mailId }}
					>
						<span class="quiet">{row.mailError}</span>
						<button class="button">Send it again <span class="sr-only">to {row.note}</span></button>
					</Form>
				{/if}
				{#if row.state !== 'waiting'}<a
						class="quiet"
						target="_blank"
						href="/owed/statements/{data.run.id}/pdf?one={row.id}"
						>PDF <span class="sr-only">for {row.payer}</span></a
					>{:else}<span></span>{/if}
				<b class="numbers text-right phone:row-start-1 phone:col-start-2"
					>{row.state === 'waiting' ? '' : displayAmount(row.balance)}</b
				>
			</li>
		{/each}
	</ul>
</div>
