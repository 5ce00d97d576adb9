<!-- A credit note for the whole invoice: said beforehand what it does, because it cannot be undone. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';

	let { document, onclose }: { document: DocumentDetail; onclose: () => void } = $props();
</script>

<section class="panel py-4.5 px-5 mb-3.5" aria-label="Credit it">
	<PanelForm
		action="?/credit"
		submit="Issue the credit note"
		danger
		done="The credit note is issued."
		first="[name=&quot;reason&quot;]"
		{onclose}
		class="max-w-[640px] gap-3"
	>
		<p>
			A credit note for the whole of {document.number} takes {displayPounds(document.total)} off what
			{document.customerName} owes. It gets a number of its own and cannot be undone.
			{#if document.item?.cash}<b
					>They have paid {displayPounds(document.item.cash)}, which you would then owe them.</b
				>{/if}
			A bill that is only unpaid is not credited.
		</p>
		<Field
			label="Why, printed on it"
			name="reason"
			placeholder="such as: work not done, wrong customer"
		/>
	</PanelForm>
</section>
