<!-- The settings, part by part. Over 300 lines: each part as it stands, and as it is changed. -->
<script lang="ts">
	import { formatIban } from '$lib/core/documents/account';
	import type { ComponentProps } from 'svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { counted } from '$lib/core/words';
	import { textCost } from '$lib/core/wordings/texts';
	import { page } from '$app/state';
	import { formatNumber } from '$lib/core/documents/numbers';
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import BusinessPart from '$lib/ui/business/BusinessPart.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';

	let { data } = $props();
	let looks = $state<HTMLFormElement>();
	const LOOKS = [
		{ value: 'light', label: 'Light' },
		{ value: 'dark', label: 'Dark' },
		{ value: 'device', label: 'As the device' }
	] as const;
	let changing = $derived(page.url.searchParams.get('change'));
	let owner = $derived(data.settings);
	let vat = $derived(
		owner.vatStatuses.map(({ from, registered, number }) => {
			const state = registered
				? number
					? `registered, ${formatVatNumber(number)}`
					: 'registered, the number is missing'
				: 'not registered';
			return from.startsWith('0001') ? state : `from ${displayDate(from)}: ${state}`;
		})
	);
	const STAGGERS = {
		'': 'missing: the page of VAT shows calendar quarters',
		march: 'March, June, September, December',
		april: 'April, July, October, January',
		may: 'May, August, November, February',
		monthly: 'each month'
	};
	let vatFacts = $derived<[string, string][]>([
		['VAT periods end with', STAGGERS[owner.vatStagger ?? '']],
		[
			'VAT on sales',
			owner.vatBasis === 'cash'
				? `when you are paid${owner.vatCashFrom ? `, since ${displayDate(owner.vatCashFrom)}` : ''}`
				: 'by tax point'
		]
	]);
	/** What is set, in the order in which an invoice needs it. */
	let parts = $derived<Pick<ComponentProps<typeof BusinessPart>, 'part' | 'title' | 'facts'>[]>([
		{
			part: 'you',
			title: 'You',
			facts: [
				['Your own name', owner.ownerName ?? ''],
				['Trading name', owner.tradingName || 'none: invoices bear your own'],
				['Address', owner.address ?? ''],
				['E-mail', owner.email || 'missing: copies and news of payments have nowhere to go'],
				['Phone', owner.phone || 'not on your documents']
			]
		},
		{
			part: 'tax',
			title: 'VAT and CIS',
			facts: [
				['VAT', vat.join('\n')],
				...(owner.vatRegistered ? vatFacts : []),
				['CIS', owner.cisSubcontractor ? 'a subcontractor' : 'not a subcontractor'],
				...(owner.cisSubcontractor
					? ([['UTR', owner.utr || 'missing: contractors need it to verify you']] as [
							string,
							string
						][])
					: [])
			]
		},
		{
			part: 'bank',
			title: 'Bank, for transfers',
			facts: owner.bankAccountNumber
				? [
						['Name of the account', owner.bankAccountName || 'as your own'],
						['Sort code', owner.bankSortCode ?? ''],
						['Account number', owner.bankAccountNumber ?? ''],
						...(owner.bankIban ? [['IBAN', formatIban(owner.bankIban)] as [string, string]] : [])
					]
				: [['Account', 'missing: your invoices cannot say where a transfer goes']]
		},
		{
			part: 'invoices',
			title: 'Invoices',
			facts: [
				[
					'The next number',
					formatNumber(
						owner.invoicePattern ?? '',
						Number(owner.invoiceNext),
						data.today.slice(0, 4)
					)
				],
				[
					'Due',
					owner.termsEndOfMonth
						? `at the end of the month in which ${counted(Number(owner.termsDays), 'day')} are over`
						: `${counted(Number(owner.termsDays), 'day')} after issue`
				],
				['A copy to you', owner.copyToSelf ? 'of all you send' : 'no'],
				...(owner.textPrice
					? [['A text costs you', `${textCost(1, owner.textPrice)} a part`] as [string, string]]
					: []),
				[
					'Fees of cards',
					owner.passOnCardFees ? 'firms bear those of commercial cards, at cost' : 'you bear them'
				]
			]
		}
	]);
</script>

<svelte:head><title>Settings · Axiometer</title></svelte:head>
<div class="page settings">
	<h1 class="mb-3.5">Settings</h1>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_350px] gap-5.5 items-start max-[900px]:grid-cols-1"
	>
		<div class="grid gap-4.5">
			{#each parts as { part, title, facts } (part)}
				<BusinessPart {part} {title} {facts} values={data.settings} open={changing === part} />
			{/each}
		</div>
		<aside class="grid gap-4.5 [&_.field]:w-full">
			<Form
				class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4"
				action="?/look"
				bind:root={looks}
				ondone={({ look }) => (document.documentElement.dataset.mode = String(look))}
			>
				<h2>Light or dark</h2>
				<div>
					<Segments
						label="On this device"
						name="look"
						value={data.look}
						options={LOOKS}
						onchange={() => setTimeout(() => looks?.requestSubmit())}
					/>
				</div>
				<noscript><button class="button">Choose it</button></noscript>
			</Form>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4" id="late">
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
				<Form
					class="grid gap-3 justify-items-start"
					action="?/rate"
					done="The rate is saved."
					reset
				>
					<DateField
						label="Half year from"
						name="from"
						value={data.missingRate ?? data.rates[0]?.from ?? ''}
					/>
					<Field label="Base rate, %" name="rate" inputmode="decimal" value="" />
					<button class="button">Save the rate</button>
				</Form>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>People</h2>
				<p class="quiet">A helper on site, somebody in the office, your accountant.</p>
				<span class="flex flex-wrap gap-2"
					><a class="button" href="/settings/people">People and roles</a>
					<a class="button" href="/you">Your own sign-in</a></span
				>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>Letterheads</h2>
				<p class="quiet">How your documents look: logo, colour, columns, words.</p>
				<span class="flex flex-wrap gap-2"
					><a class="button" href="/settings/letterheads">Change the letterheads</a>
					<a class="button" href="/settings/kinds">Kinds of work</a>
					<a class="button" href="/settings/categories">Income categories and cost centres</a></span
				>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>Other money</h2>
				<p class="quiet">What a euro or a dollar was worth in pounds, for documents in it.</p>
				<a class="button" href="/settings/exchange">Exchange rates</a>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>Moving in</h2>
				<p class="quiet">
					From a spreadsheet or another program: customers, prices, open invoices, deposits,
					repeats.
				</p>
				<a class="button" href="/settings/moving">Bring your books in</a>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>Wordings</h2>
				<p class="quiet">What your invoices, receipts, statements and reminders say.</p>
				<a class="button" href="/settings/wordings">Change the wordings</a>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4">
				<h2>Backups and your data</h2>
				<p class={data.backup.trouble ? 'wrong' : ''}>
					{data.backup.trouble ||
						(data.backup.at === null
							? 'The first backup is made by itself, tonight.'
							: `The last backup is of ${displayMoment(data.backup.at)}.`)}
				</p>
				<a class="button" href="/settings/keep">Backups, export, lost devices</a>
			</section>
			<section class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4" id="audit">
				<h2>The books, checked from outside</h2>
				{#if !data.audit}<p class="quiet">
						Every night the books are worked out anew and held against themselves. It has not been
						night yet.
					</p>
				{:else if data.audit.found === 0}<p>
						They agreed with themselves on {displayMoment(data.audit.ranAt)}.
					</p>
				{:else}<p class="wrong">
						On {displayMoment(data.audit.ranAt)} they differed in {counted(
							data.audit.found,
							'place'
						)}. Keep a copy of the data file as it is, and have somebody look at it.
					</p>
					<ul class="grid gap-1 wrap-anywhere">
						{#each data.audit.words.slice(0, 20) as words, index (index)}<li>{words}</li>{/each}
					</ul>{/if}
			</section>
			<Form
				class="panel grid gap-3 justify-items-start py-5 px-5.5 max-[900px]:p-4"
				action="?/password"
			>
				<h2>Password</h2>
				<Field
					label="The password now"
					name="current"
					type="password"
					autocomplete="current-password"
				/>
				<Field label="The new one" name="password" type="password" autocomplete="new-password" />
				<button class="button">Change it</button>
				<p class="quiet">Everyone is signed out by it, you too.</p>
			</Form>
			<section class="panel grid gap-2 py-5 px-5.5 max-[900px]:p-4" aria-labelledby="signed-in">
				<h2 id="signed-in">Where you are signed in</h2>
				<ul>
					{#each data.sessions as one, index (one.name)}
						<li class="flex gap-3 items-center py-1 border-b border-b-(--hair) last:border-0">
							<span class="flex-1"
								>{one.device || 'A browser'}
								<span class="quiet block"
									>{one.current ? 'this one' : `last used ${displayMoment(one.seenAt)}`}</span
								></span
							>
							{#if !one.current}<Form
									action="?/endSession"
									hidden={{ name: one.name }}
									done="Signed out there."
								>
									<button class="button plain"
										>Sign out <span class="sr-only"
											>{one.device || 'a browser'}, last used {displayMoment(one.seenAt)}, number {index +
												1}</span
										></button
									>
								</Form>{/if}
						</li>
					{/each}
				</ul>
				<p class="quiet">Each ends after a week without use, and after thirty days in any case.</p>
				<div class="flex flex-wrap gap-2.5">
					<form method="post" action="/sign-out">
						<button class="button">Sign out here</button>
					</form>
					{#if data.sessions.length > 1}<Form
							action="?/endSession"
							done="Signed out everywhere else."
						>
							<button class="button">Sign out everywhere else</button>
						</Form>{/if}
				</div>
			</section>
		</aside>
	</div>
</div>
