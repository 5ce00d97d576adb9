<!-- One box that finds customers, jobs, documents and amounts, and does what can be done. -->
<script lang="ts">
	import { Command } from 'bits-ui';
	import Dialog from '$lib/ui/parts/Dialog.svelte';
	import FileText from '@lucide/svelte/icons/file-text';
	import Hammer from '@lucide/svelte/icons/hammer';
	import ArrowRight from '@lucide/svelte/icons/arrow-right';
	import Plus from '@lucide/svelte/icons/plus';
	import UserRound from '@lucide/svelte/icons/user-round';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { quickWords } from '$lib/core/quick';
	import { pressKey } from '../parts/keys';
	import { notices } from '../parts/notices.svelte';
	import { entriesFor, type Entry } from './catalogue';
	import { lately, type Lately } from './lately';

	interface Found {
		kind: 'customer' | 'job' | 'document';
		id: number;
		title: string;
		detail: string;
		href: string;
	}

	interface Offer {
		what: 'invoice' | 'job';
		customerId: number;
		customer: string;
		quantity: string;
		unit: string;
		description: string;
		unitPrice: string;
		withVat: boolean;
	}

	let { open = $bindable(false) }: { open: boolean } = $props();
	const person = $derived((page.data.person as number | undefined) ?? 0);
	let recent = $state<Lately[]>([]);
	let offers = $state<Offer[]>([]);
	let wasOpen = false;
	let typed = $state('');
	let found = $state<Found[]>([]);
	let asked = 0;

	let groups = $derived(entriesFor(typed));
	const KINDS = { customer: 'Customers', job: 'Jobs', document: 'Invoices and credit notes' };
	let foundGroups = $derived(
		(['customer', 'job', 'document'] as const)
			.map((kind) => ({ name: KINDS[kind], all: found.filter((one) => one.kind === kind) }))
			.filter((group) => group.all.length > 0)
	);

	function run(entry: Entry) {
		if (entry.post) submit(entry.href, entry.post);
		else if (entry.href.endsWith('/export')) window.location.assign(entry.href);
		else void goto(entry.href);
	}

	function submit(action: string, values: Readonly<Record<string, string>>) {
		const form = document.createElement('form');
		form.method = 'post';
		form.action = action;
		for (const [name, value] of Object.entries(values)) {
			const input = document.createElement('input');
			Object.assign(input, { type: 'hidden', name, value });
			form.append(input);
		}
		document.body.append(form);
		form.submit();
	}

	async function search(query: string) {
		const mine = ++asked;
		if (query.trim() === '') {
			found = [];
			offers = [];
			return;
		}
		const q = encodeURIComponent(query);
		// One line that begins something: the customer, how much, of what, for how much.
		const begins = quickWords(query) !== null;
		if (!begins) offers = [];
		const [response, quick] = await Promise.all([
			fetch(`/api/find?q=${q}`).catch(() => null),
			begins ? fetch(`/api/quick?q=${q}`).catch(() => null) : null
		]);
		if (mine !== asked) return;
		if (quick?.ok) offers = await quick.json();
		if (response?.ok) found = await response.json();
	}

	/** What an offer would begin, in words. */
	const inWords = ({ what, customer, quantity, unit, description, unitPrice, withVat }: Offer) =>
		[
			`${what === 'invoice' ? 'Invoice to' : 'Job for'} ${customer}:`,
			[quantity !== '1' || unit ? `${quantity} ${unit}`.trim() : '', description]
				.filter(Boolean)
				.join(' ') || 'nothing on it yet',
			unitPrice ? `at ${unitPrice}${withVat ? ' with VAT' : ''}` : ''
		]
			.filter(Boolean)
			.join(' ');

	const quickKey = pressKey();
	async function begin({ customerId, what }: Offer) {
		const line = typed;
		open = false;
		const response = await fetch('/api/quick', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ key: `${quickKey}:${line}`.slice(0, 100), customerId, typed: line })
		}).catch(() => null);
		const answer = await response?.json().catch(() => null);
		if (!response?.ok)
			return notices.say(
				Object.values((answer?.fields ?? {}) as Record<string, string>)[0] ??
					answer?.message ??
					`The ${what} could not be begun just now.`
			);
		await goto(answer.href);
	}

	function choose(run: () => unknown) {
		open = false;
		run();
	}

	$effect(() => {
		if (open && !wasOpen) {
			typed = '';
			found = [];
			offers = [];
			recent = lately(person).filter(({ href }) => href !== page.url.pathname);
		}
		wasOpen = open;
	});
</script>

<Dialog bind:open title="Find or do anything" quiet bare first="input">
	{#if open}
		<Command.Root shouldFilter={false} loop label="Find or do anything">
			<Command.Input
				class="box"
				placeholder="A name, a number, an amount, or: invoice corvane 3 h repair 45"
				aria-label="Find or do anything"
				bind:value={typed}
				oninput={(event) => search(event.currentTarget.value)}
			/>
			<Command.List class="found-list" tabindex={0}>
				<Command.Viewport>
					{#if offers.length}
						<Command.Group value="In one line">
							<Command.GroupHeading class="quiet px-2.5 pt-2">In one line</Command.GroupHeading>
							<Command.GroupItems>
								{#each offers as one (one.customerId)}
									<Command.Item
										class="found-item"
										value="quick{one.customerId}"
										onSelect={() => void begin(one)}
									>
										<Plus size={18} aria-hidden="true" />
										<b class="min-w-0 wrap-anywhere">{inWords(one)}</b>
									</Command.Item>
								{/each}
							</Command.GroupItems>
						</Command.Group>
					{/if}
					{#if typed.trim() === '' && recent.length}
						<Command.Group value="Lately">
							<Command.GroupHeading class="quiet px-2.5 pt-2">Opened lately</Command.GroupHeading>
							<Command.GroupItems>
								{#each recent as one (one.href)}
									<Command.Item
										class="found-item"
										value="lately{one.href}"
										onSelect={() => choose(() => goto(one.href))}
									>
										<ArrowRight size={18} aria-hidden="true" />
										<span class="min-w-0 wrap-anywhere">{one.title}</span>
									</Command.Item>
								{/each}
							</Command.GroupItems>
						</Command.Group>
					{/if}
					{#each foundGroups as group (group.name)}
						<Command.Group value={group.name}>
							<Command.GroupHeading class="quiet px-2.5 pt-2">{group.name}</Command.GroupHeading>
							<Command.GroupItems>
								{#each group.all as one (one.kind + one.id)}
									<Command.Item
										class="found-item"
										value={one.kind + one.id}
										onSelect={() => choose(() => goto(one.href))}
									>
										{#if one.kind === 'customer'}<UserRound
												size={18}
												aria-hidden="true"
											/>{:else if one.kind === 'job'}<Hammer
												size={18}
												aria-hidden="true"
											/>{:else}<FileText size={18} aria-hidden="true" />{/if}
										<b class="min-w-0 wrap-anywhere">{one.title}</b><span class="quiet numbers"
											>{one.detail}</span
										>
									</Command.Item>
								{/each}
							</Command.GroupItems>
						</Command.Group>
					{/each}
					{#each groups as group (group.name)}
						<Command.Group value={group.name}>
							<Command.GroupHeading class="quiet px-2.5 pt-2">{group.name}</Command.GroupHeading>
							<Command.GroupItems>
								{#each group.entries as entry (entry.label)}
									<Command.Item
										class="found-item"
										value={entry.label}
										onSelect={() => choose(() => run(entry))}
									>
										{#if group.name === 'Begin'}<Plus
												size={18}
												aria-hidden="true"
											/>{:else}<ArrowRight size={18} aria-hidden="true" />{/if}
										<span>{entry.label}</span>
									</Command.Item>
								{/each}
							</Command.GroupItems>
						</Command.Group>
					{/each}
				</Command.Viewport>
			</Command.List>
			{#if typed.trim() && !found.length && !groups.length && !offers.length}
				<p class="quiet p-2.5">
					Nothing has “{typed}” in it. Try fewer letters, or a number as printed.
				</p>
			{/if}
		</Command.Root>
	{/if}
</Dialog>
