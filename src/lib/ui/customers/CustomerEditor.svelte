<!-- A customer with its tax standing: beside the sheet, and on its own page. Saved when told to. -->
<script lang="ts">
	import { BOOKS, CURRENCIES, CURRENCY_NAMES } from '$lib/core/money/currencies';
	import Labels from '$lib/ui/parts/Labels.svelte';
	import Choice from '../parts/Choice.svelte';
	import LetterheadChoice from '$lib/ui/letterheads/LetterheadChoice.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { onMount, tick, untrack } from 'svelte';
	import type { CustomerKind } from '$lib/core/regimes/types';
	import WaysToPay from '../money/WaysToPay.svelte';
	import CustomerFinder from './CustomerFinder.svelte';
	import Field from '../parts/Field.svelte';
	import ContactsAndSites from './ContactsAndSites.svelte';
	import StandingFields from './StandingFields.svelte';
	import type { CustomerValues } from './values';

	interface Props {
		/** Who is edited; nothing while it is somebody new. */
		of?: number | null;
		values: CustomerValues;
		/** Sends the customer; returns messages by field, or nothing when it is saved. */
		onsave: (
			customer: object
		) => Promise<{ message: string; fields: Record<string, string> } | null>;
		oncancel?: () => void;
		/** The field to begin with. */
		field?: string | null;
		saveLabel?: string;
		/** Where it is posted to without scripts, with the boxes that have a name; what was wrong with it then. */
		plain?: { action: string; errors: Record<string, string> } | undefined;
	}
	let {
		of = null,
		values,
		onsave,
		oncancel,
		field = null,
		saveLabel = 'Save',
		plain
	}: Props = $props();

	// What is edited is a copy: it begins with what came in and goes its own way.
	let customer = $state(untrack(() => structuredClone($state.snapshot(values)) as CustomerValues));
	let terms = $state(untrack(() => (values.termsDays === null ? '' : String(values.termsDays))));
	let labels = $state(untrack(() => values.labels.join(', ')));
	let errors = $state<Record<string, string>>(untrack(() => plain?.errors ?? {}));
	let message = $state('');
	let busy = $state(false);
	let form: HTMLFormElement;

	const KINDS: { value: CustomerKind; words: string; detail: string }[] = [
		{ value: 'household', words: 'A household', detail: 'a private person or family' },
		{ value: 'business', words: 'A business', detail: 'a firm or charity that pays without CIS' },
		{ value: 'contractor', words: 'A contractor', detail: 'pays for this work under CIS' }
	];
	let contractor = $derived(customer.kind === 'contractor');

	onMount(async () => {
		await tick();
		if (field)
			(
				form.querySelector<HTMLElement>(`[name="${field}"]`) ??
				form.querySelector<HTMLElement>(`[name="standing.${field}"]`)
			)?.focus();
	});

	async function save(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		errors = {};
		const { billToName: _name, ...plain } = $state.snapshot(customer);
		const { standing } = plain;
		const days = terms.trim() === '' ? null : Number(terms);
		const result = await onsave({
			...plain,
			labels: labels
				.split(',')
				.map((label) => label.trim())
				.filter(Boolean),
			termsDays: Number.isNaN(days) ? -1 : days,
			standing: {
				...standing,
				...(contractor
					? {}
					: { cisRegistered: false, cisRate: null, endUser: false, verificationNumber: '' }),
				...(customer.kind === 'household' ? { vatRegistered: false, vatNumber: '' } : {}),
				from: standing.from ?? '',
				endUserDate: standing.endUserDate ?? ''
			}
		}).catch(() => ({
			message: 'The connection is lost. Nothing was saved; try again when it is back.',
			fields: {}
		}));
		busy = false;
		errors = result?.fields ?? {};
		message = result?.message ?? '';
		await tick();
		// Saved, the form may have gone with its panel.
		form?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
	}
</script>

<form
	class="grid gap-3"
	bind:this={form}
	onsubmit={save}
	novalidate
	{...plain ? { method: 'post', action: plain.action } : {}}
>
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	<Field label="Name" name="name" bind:value={customer.name} error={errors.name} />
	<fieldset class="gap-0">
		<legend class="quiet font-[650] mb-0.5">They are</legend>
		{#each KINDS as kind (kind.value)}
			<label class="check"
				><input type="radio" name="kind" value={kind.value} bind:group={customer.kind} /><span
					>{kind.words} <span class="quiet">{kind.detail}</span></span
				></label
			>
		{/each}
	</fieldset>
	<Field
		label="Address"
		name="address"
		rows={3}
		bind:value={customer.address}
		error={errors.address}
	/>
	<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
		<Field
			label="E-mail"
			name="email"
			type="email"
			bind:value={customer.email}
			error={errors.email}
		/>
		<Field label="Phone" name="phone" type="tel" bind:value={customer.phone} error={errors.phone} />
	</div>

	{#if customer.kind === 'household'}<label class="check"
			><input type="checkbox" name="inTrade" bind:checked={customer.inTrade} /><span
				>Acts in the way of trade here, such as letting <span class="quiet"
					>then it is no consumer, and has no right to cancel</span
				></span
			></label
		>{:else}
		<StandingFields bind:standing={customer.standing} {contractor} {errors} />
	{/if}

	<Fold
		label="Bill-to, terms, money, ways to pay, letterhead, greeting, private note"
		open={Boolean(
			customer.billToId ||
			terms ||
			customer.orderNumberRequired ||
			customer.privateNote ||
			customer.salutation ||
			customer.letterheadId ||
			customer.payWays ||
			errors.billToId ||
			errors.termsDays ||
			errors.currency ||
			customer.currency !== BOOKS
		)}
	>
		<CustomerFinder
			label="The bill goes to"
			placeholder="the customer itself"
			bind:value={customer.billToId}
			called={customer.billToName}
			except={of}
			error={errors.billToId}
		/>
		<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
			<Field
				label="Terms, in days"
				name="termsDays"
				inputmode="numeric"
				placeholder="as in the settings"
				bind:value={terms}
				error={errors.termsDays}
			/>
			<Choice
				label="Billed in"
				name="currency"
				bind:value={customer.currency}
				error={errors.currency}
			>
				{#each CURRENCIES as code (code)}<option value={code}
						>{code === BOOKS ? 'pounds' : `${CURRENCY_NAMES[code].many} (${code})`}</option
					>{/each}
			</Choice>
		</div>
		<label class="check"
			><input type="checkbox" bind:checked={customer.termsEndOfMonth} /> Due at the end of the month those
			days fall in</label
		>
		<label class="check"
			><input type="checkbox" bind:checked={customer.orderNumberRequired} /> Wants an order number on
			every invoice</label
		>
		<WaysToPay
			label="They can pay"
			ways={customer.payWays}
			error={errors.payWays}
			onchange={(ways) => (customer.payWays = ways)}
		/>
		<LetterheadChoice
			label="Their documents are written on"
			standard="as for the kind of work, or the standard"
			bind:value={customer.letterheadId}
			error={errors.letterheadId}
		/>
		<Field
			label="How messages greet them"
			name="salutation"
			placeholder={customer.kind === 'household' && customer.name
				? `Hello ${customer.name}`
				: 'Hello'}
			bind:value={customer.salutation}
			error={errors.salutation}
		/>
		<Labels label="Labels" name="labels" bind:value={labels} error={errors.labels} />
		<Field
			label="Private note: never on a document"
			name="privateNote"
			rows={2}
			bind:value={customer.privateNote}
			error={errors.privateNote}
		/>
	</Fold>

	<ContactsAndSites
		bind:contacts={customer.contacts}
		bind:sites={customer.sites}
		{of}
		unfold={!oncancel}
		{errors}
	/>
	<div class="flex gap-2.5 sticky bottom-0 phone:static bg-(--sheet) py-2.5">
		<button class="button filled" aria-busy={busy}>{saveLabel}</button>
		{#if oncancel}<button type="button" class="button" onclick={oncancel}>Close</button>{/if}
	</div>
</form>
