<!-- One box that finds customers, jobs, documents and amounts, and does what can be done. -->
<script lang="ts">
	import { Command } from 'bits-ui';
	import Dialog from '$lib/ui/parts/Dialog.svelte';
	import FilePlus from '@lucide/svelte/icons/file-plus';
	import FileText from '@lucide/svelte/icons/file-text';
	import Hammer from '@lucide/svelte/icons/hammer';
	import Landmark from '@lucide/svelte/icons/landmark';
	import LogOut from '@lucide/svelte/icons/log-out';
	import Ruler from '@lucide/svelte/icons/ruler';
	import Repeat from '@lucide/svelte/icons/repeat';
	import Settings from '@lucide/svelte/icons/settings';
	import Tags from '@lucide/svelte/icons/tags';
	import UserPlus from '@lucide/svelte/icons/user-plus';
	import UserRound from '@lucide/svelte/icons/user-round';
	import { goto } from '$app/navigation';

	interface Found {
		kind: 'customer' | 'job' | 'document';
		id: number;
		title: string;
		detail: string;
		href: string;
	}

	let { open = $bindable(false) }: { open: boolean } = $props();
	let wasOpen = false;
	let typed = $state('');
	let found = $state<Found[]>([]);
	let asked = 0;

	const actions = [
		{
			label: 'New invoice',
			words: 'new invoice bill',
			icon: FilePlus,
			run: () => submit('/billing/new')
		},
		{
			label: 'Record a self-billed invoice',
			words: 'self billing billed contractor remittance their invoice',
			icon: FileText,
			run: () => submit('/billing/new', { selfBilled: '1' })
		},
		{
			label: 'New customer',
			words: 'new customer add',
			icon: UserPlus,
			run: () => goto('/customers/new')
		},
		{
			label: 'New job',
			words: 'new job work enquiry',
			icon: Hammer,
			run: () => goto('/work/new')
		},
		{
			label: 'To bill',
			words: 'to bill run finished work jobs',
			icon: Hammer,
			run: () => goto('/work/bill')
		},
		{
			label: 'What is owed',
			words: 'what is owed money rule late payers',
			icon: Ruler,
			run: () => goto('/owed')
		},
		{
			label: 'Statements',
			words: 'statements account send',
			icon: FileText,
			run: () => goto('/owed/statements')
		},
		{
			label: 'Chasing',
			words: 'chasing reminders chase plans remind late',
			icon: FileText,
			run: () => goto('/owed/chasing')
		},
		{
			label: 'Charts of money',
			words: 'charts money income by month owed by age days to pay likely',
			icon: Ruler,
			run: () => goto('/money/charts')
		},
		{
			label: 'Card payouts',
			words: 'card payouts fees processor',
			icon: Landmark,
			run: () => goto('/money/payouts')
		},
		{
			label: 'Bring in a bank statement',
			words: 'bring in a bank statement money in payments csv',
			icon: Landmark,
			run: () => goto('/money')
		},
		{
			label: 'Price list',
			words: 'price list prices kits materials',
			icon: Tags,
			run: () => goto('/work/prices')
		},
		{
			label: 'Repeats',
			words: 'repeats monthly again',
			icon: Repeat,
			run: () => goto('/billing/repeats')
		},
		{
			label: 'Margins',
			words: 'margins profit jobs',
			icon: Hammer,
			run: () => goto('/work/margins')
		},
		{
			label: 'Unpaid invoices',
			words: 'unpaid open owed invoices',
			icon: FileText,
			run: () => goto('/billing?state=unpaid')
		},
		{
			label: 'Late invoices',
			words: 'late overdue invoices',
			icon: FileText,
			run: () => goto('/billing?state=late')
		},
		{
			label: 'Settings',
			words: 'settings business vat number bank password',
			icon: Settings,
			run: () => goto('/settings')
		},
		{ label: 'Sign out', words: 'sign out leave', icon: LogOut, run: () => submit('/sign-out') }
	];
	let shownActions = $derived(
		actions.filter((action) =>
			typed
				.trim()
				.toLowerCase()
				.split(/\s+/)
				.every((word) => action.words.includes(word))
		)
	);

	function submit(action: string, values: Record<string, string> = {}) {
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
			return;
		}
		const response = await fetch(`/api/find?q=${encodeURIComponent(query)}`).catch(() => null);
		if (mine !== asked || !response?.ok) return;
		found = await response.json();
	}

	function choose(run: () => unknown) {
		open = false;
		run();
	}

	$effect(() => {
		if (open && !wasOpen) {
			typed = '';
			found = [];
		}
		wasOpen = open;
	});
</script>

<Dialog bind:open title="Find or do anything" quiet bare first="input">
	{#if open}
		<Command.Root shouldFilter={false} loop label="Find or do anything">
			<Command.Input
				class="box"
				placeholder="A name, a number, an amount, or what you want to do"
				aria-label="Find or do anything"
				bind:value={typed}
				oninput={(event) => search(event.currentTarget.value)}
			/>
			<Command.List class="found-list" tabindex={0}>
				<Command.Viewport>
					{#each found as one (one.kind + one.id)}
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
							<b>{one.title}</b><span class="quiet numbers">{one.detail}</span>
						</Command.Item>
					{/each}
					{#each shownActions as action (action.label)}
						<Command.Item
							class="found-item"
							value={action.label}
							onSelect={() => choose(action.run)}
						>
							<action.icon size={18} aria-hidden="true" /><span>{action.label}</span>
						</Command.Item>
					{/each}
				</Command.Viewport>
			</Command.List>
			{#if typed.trim() && !found.length && !shownActions.length}
				<p class="quiet p-2.5">
					Nothing has “{typed}” in it. Try fewer letters, or a number as printed.
				</p>
			{/if}
		</Command.Root>
	{/if}
</Dialog>
