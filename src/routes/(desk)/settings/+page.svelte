<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import BusinessFields from '$lib/ui/business/BusinessFields.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let refused = $derived(
		form && 'fields' in form
			? (form as {
					message: string;
					fields: Record<string, string>;
					values: Record<string, unknown>;
				})
			: null
	);
	let errors = $derived(refused?.fields ?? {});
	let values = $derived<Record<string, unknown>>(
		refused && Object.keys(refused.values).length ? refused.values : { ...data.settings }
	);
</script>

<svelte:head><title>Settings · Axiometer</title></svelte:head>
<div class="page settings">
	<h1>Settings</h1>
	<div class="columns">
		<form
			class="panel"
			method="post"
			action="?/business"
			use:enhance={() =>
				({ update, result }) => {
					if (result.type === 'success')
						notices.say('Saved. Documents issued before keep what they were issued with.');
					return update({ reset: false });
				}}
		>
			<BusinessFields {values} {errors} />
			{#if refused}<p class="wrong" role="alert">{refused.message}</p>{/if}
			<button class="button filled">Save</button>
		</form>
		<aside>
			<section class="panel">
				<h2>VAT over time</h2>
				<ul>
					{#each data.settings.vatStatuses as status (status.from)}
						<li>
							{status.from.startsWith('0001')
								? 'From the start'
								: `From ${displayDate(status.from)}`}:
							<b>{status.registered ? `registered, GB ${status.number}` : 'not registered'}</b>
						</li>
					{/each}
				</ul>
				<p class="quiet">Each document follows the status on its tax point.</p>
			</section>
			<section class="panel" id="late">
				<h2>Interest on late invoices</h2>
				<p class="quiet">
					The Bank of England’s base rate on 31 December and 30 June, to which the Late Payment Act
					adds 8 %.
				</p>
				{#if data.missingRate}<p class="wrong">
						The rate for the half year from {displayDate(data.missingRate)} is missing.
					</p>{/if}
				<ul class="numbers">
					{#each data.rates.slice(0, 4) as { from, rate } (from)}<li>
							from {displayDate(from)}: <b>{rate} %</b>
						</li>{/each}
				</ul>
				<form
					method="post"
					action="?/rate"
					use:enhance={() =>
						({ update, result }) => {
							if (result.type === 'success') notices.say('The rate is kept.');
							return update();
						}}
				>
					<DateField
						label="Half year from"
						name="from"
						value={data.missingRate ?? data.rates[0]?.from ?? ''}
						error={errors.from}
					/>
					<Field
						label="Base rate, %"
						name="rate"
						inputmode="decimal"
						value=""
						error={errors.rate}
					/>
					<button class="button">Keep the rate</button>
				</form>
			</section>
			<form class="panel" method="post" action="?/password" use:enhance>
				<h2>Password</h2>
				<Field
					label="The password now"
					name="current"
					type="password"
					autocomplete="current-password"
					error={errors.current}
				/>
				<Field
					label="The new one"
					name="password"
					type="password"
					autocomplete="new-password"
					error={errors.password}
				/>
				<button class="button">Change it</button>
				<p class="quiet">Everyone is signed out by it, you too.</p>
			</form>
			<form class="panel leave" method="post" action="/sign-out">
				<button class="button">Sign out</button>
			</form>
		</aside>
	</div>
</div>

<style>
	h1 {
		margin-bottom: 14px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 330px;
		gap: 22px;
		align-items: start;
	}
	.panel {
		padding: 20px 22px;
	}
	aside {
		display: grid;
		gap: 18px;
	}
	aside form,
	aside section form,
	aside section {
		display: grid;
		gap: 12px;
		justify-items: start;
	}
	aside :global(.field) {
		width: 100%;
	}
	@media (max-width: 900px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		.panel {
			padding: 16px;
		}
	}
</style>
