<script lang="ts">
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount } from '$lib/core/money/display';

	let { data } = $props();
	let of = $derived(data.rows.length);
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
	<div class="panel head">
		{#if data.run.state === 'running'}
			<p role="status">
				{data.done} of {of} done. You can leave this page: it goes on by itself.
			</p>
			<Progress value={data.done} max={of} label="Progress of the statements" />
		{:else}
			<p role="status">
				<b>{of - skipped.length} {data.run.action === 'send' ? 'sent' : 'made'}</b>{skipped.length
					? `; ${skipped.length} left out, see below`
					: ''}. As of {displayDate(data.run.options.asOf)}.
			</p>
			<a class="button" href="/owed/statements/{data.run.id}/pdf" target="_blank"
				>One PDF of all to print</a
			>
		{/if}
	</div>
	<ul class="panel">
		{#each data.rows as row (row.id)}
			<li>
				<span class="who"
					><a href="/owed/{row.payerId}">{row.payer}</a><span
						class="quiet"
						class:late={row.state === 'skipped'}>{row.note}</span
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
					<form class="again" method="post" action="?/again" use:enhance>
						<input type="hidden" name="mail" value={row.mailId} />
						<span class="quiet">{row.mailError}</span>
						<button class="button">Send it again<span class="sr-only"> to {row.note}</span></button>
					</form>
				{/if}
				{#if row.state !== 'waiting'}<a
						class="quiet"
						target="_blank"
						href="/owed/statements/{data.run.id}/pdf?one={row.id}">PDF</a
					>{:else}<span></span>{/if}
				<b class="numbers">{row.state === 'waiting' ? '' : displayAmount(row.balance)}</b>
			</li>
		{/each}
	</ul>
</div>

<style>
	.head {
		padding: 14px 18px;
		margin: 12px 0;
		display: flex;
		flex-wrap: wrap;
		gap: 10px 18px;
		align-items: center;
		justify-content: space-between;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 210px 50px 110px;
		gap: 4px 14px;
		align-items: center;
		padding: 9px 16px;
		border-bottom: 1px solid var(--hair);
	}
	li:last-child {
		border-bottom: 0;
	}
	.again {
		grid-column: 1 / -1;
		grid-row: 2;
		display: flex;
		flex-wrap: wrap;
		gap: 8px 14px;
		align-items: center;
	}
	.who > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.who a {
		font-weight: 600;
	}
	b {
		text-align: right;
	}
	@media (max-width: 760px) {
		li {
			grid-template-columns: minmax(0, 1fr) auto;
			padding: 9px 12px;
		}
		b {
			grid-row: 1;
			grid-column: 2;
		}
	}
</style>
