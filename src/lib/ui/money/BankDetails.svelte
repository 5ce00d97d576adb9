<!-- How to pay by transfer without any link: names, numbers, the reference. -->
<script lang="ts">
	interface Props {
		bank: { accountName: string; sortCode: string; accountNumber: string; reference: string };
		amount?: string;
	}
	let { bank, amount }: Props = $props();
</script>

<div class="bank">
	<h2>Or by a transfer of your own</h2>
	<dl class="numbers">
		<div>
			<dt>To</dt>
			<dd>{bank.accountName}</dd>
		</div>
		<div>
			<dt>Sort code</dt>
			<dd>{bank.sortCode}</dd>
		</div>
		<div>
			<dt>Account</dt>
			<dd>{bank.accountNumber}</dd>
		</div>
		<div>
			<dt>Reference</dt>
			<dd><b>{bank.reference}</b></dd>
		</div>
		{#if amount}<div>
				<dt>Amount</dt>
				<dd>{amount}</dd>
			</div>{/if}
	</dl>
</div>

<style>
	.bank {
		grid-column: 1;
	}
	h2 {
		font-size: 1.06rem;
		margin-bottom: 6px;
	}
	dl > div {
		display: grid;
		grid-template-columns: 100px 1fr;
	}
	dt {
		color: var(--ink-2);
	}
</style>
