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
	import { entriesFor, type Entry } from './catalogue';

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
			{#if typed.trim() && !found.length && !groups.length}
				<p class="quiet p-2.5">
					Nothing has “{typed}” in it. Try fewer letters, or a number as printed.
				</p>
			{/if}
		</Command.Root>
	{/if}
</Dialog>
