<!-- How to pay by transfer without any link: names, numbers, the reference. -->
<script lang="ts">
	import { formatIban } from '$lib/core/documents/account';
	import type { BankAccount } from '$lib/core/documents/types';

	interface Props {
		bank: BankAccount & { reference: string };
		amount?: string;
		/** Nothing else stands beside it. */
		only?: boolean;
	}
	let { bank, amount, only = false }: Props = $props();
	let numbers = $derived(
		[
			['Sort code', bank.sortCode],
			['Account', bank.accountNumber],
			['IBAN', formatIban(bank.iban ?? '')],
			['BIC', bank.bic ?? '']
		].filter(([, number]) => number)
	);
</script>

<div class="bank col-start-1">
	<h2 class="text-[1.06rem] mb-1.5">{only ? 'By a transfer' : 'Or by a transfer of your own'}</h2>
	<dl class="numbers [&>div]:grid [&>div]:grid-cols-[100px_1fr]">
		<div>
			<dt class="text-(--ink-2)">To</dt>
			<dd>{bank.accountName}</dd>
		</div>
		{#each numbers as [name, number] (name)}<div>
				<dt class="text-(--ink-2)">{name}</dt>
				<dd class="wrap-anywhere">{number}</dd>
			</div>{/each}
		<div>
			<dt class="text-(--ink-2)">Reference</dt>
			<dd><b>{bank.reference}</b></dd>
		</div>
		{#if amount}<div>
				<dt class="text-(--ink-2)">Amount</dt>
				<dd>{amount}</dd>
			</div>{/if}
	</dl>
</div>
