<!-- How to pay by transfer without any link: names, numbers, the reference. -->
<script lang="ts">
	interface Props {
		bank: { accountName: string; sortCode: string; accountNumber: string; reference: string };
		amount?: string;
	}
	let { bank, amount }: Props = $props();
</script>

<div class="bank col-start-1">
	<h2 class="text-[1.06rem] mb-1.5">Or by a transfer of your own</h2>
	<dl class="numbers [&>div]:grid [&>div]:grid-cols-[100px_1fr]">
		<div>
			<dt class="text-(--ink-2)">To</dt>
			<dd>{bank.accountName}</dd>
		</div>
		<div>
			<dt class="text-(--ink-2)">Sort code</dt>
			<dd>{bank.sortCode}</dd>
		</div>
		<div>
			<dt class="text-(--ink-2)">Account</dt>
			<dd>{bank.accountNumber}</dd>
		</div>
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
