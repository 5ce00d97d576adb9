<!-- What is otherwise on this one document: where it goes, for whom, into which account, and how it may be paid. -->
<script lang="ts">
	import Fold from '../parts/Fold.svelte';
	import WaysToPay from '../money/WaysToPay.svelte';
	import Cell from './Cell.svelte';
	import type { Draft } from './draft.svelte';

	let { draft }: { draft: Draft } = $props();
	type Own = NonNullable<Draft['sheet']['own']>;
	let own = $derived(draft.sheet.own ?? {});
	let bank = $derived(own.bank ?? { accountName: '', sortCode: '', accountNumber: '' });
	const set = (more: Own) => (draft.sheet.own = { ...own, ...more });
	const setBank = (more: Partial<NonNullable<Own['bank']>>) => set({ bank: { ...bank, ...more } });
	const wrong = (path: string) => draft.problemAt.get(path);
	let customer = $derived(draft.reading.customer);
	let usual = $derived((customer?.billTo ?? draft.customer)?.address ?? '');
	let seller = $derived(draft.seller.bank);
</script>

<Fold
	label="Only on this invoice: address, contact, account, ways to pay"
	open={Boolean(own.address || own.contact || own.bank?.accountNumber || own.ways)}
	class="whole"
>
	<div class="grid grid-cols-4 gap-y-2 gap-x-4 pt-0.5 pb-2 px-1.5 phone:grid-cols-[1fr_1fr]">
		<label class="field col-span-2 row-span-2"
			><span class="name">It goes to this address</span><textarea
				class="box"
				rows="4"
				data-path="own.address"
				placeholder={usual}
				value={own.address ?? ''}
				oninput={(event) => set({ address: event.currentTarget.value })}
			></textarea>{#if wrong('own.address')}<span class="wrong"
					>{wrong('own.address')?.message}</span
				>{/if}</label
		>
		<div class="field col-span-2">
			<span class="name">For the attention of</span><Cell
				bind:value={() => own.contact ?? '', (contact) => set({ contact })}
				label="For the attention of"
				path="own.contact"
				problem={wrong('own.contact')}
				placeholder="nobody in particular"
			/>
		</div>
		<div class="field col-span-2">
			<span class="name">Account name</span><Cell
				bind:value={() => bank.accountName, (accountName) => setBank({ accountName })}
				label="Account name"
				path="own.bank.accountName"
				problem={wrong('own.bank.accountName')}
				placeholder={seller.accountName}
			/>
		</div>
		<div class="field col-span-2">
			<span class="name">Sort code</span><Cell
				bind:value={() => bank.sortCode, (sortCode) => setBank({ sortCode })}
				label="Sort code"
				path="own.bank.sortCode"
				problem={wrong('own.bank.sortCode')}
				placeholder={seller.sortCode || 'none'}
			/>
		</div>
		<div class="field col-span-2">
			<span class="name">Account number</span><Cell
				bind:value={() => bank.accountNumber, (accountNumber) => setBank({ accountNumber })}
				label="Account number"
				path="own.bank.accountNumber"
				problem={wrong('own.bank.accountNumber')}
				placeholder={seller.accountNumber || 'none'}
			/>
		</div>
		<div class="col-span-full">
			<WaysToPay
				label="This invoice can be paid"
				ways={own.ways ?? draft.customer?.ways ?? null}
				error={wrong('own.ways')?.message}
				path="own.ways"
				onchange={(ways) => set({ ways })}
			/>
		</div>
	</div>
</Fold>
