<!-- A credit note for the whole invoice: said beforehand what it does, because it cannot be undone. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import { fieldsOf, typedOf, type FormAnswer } from './answers';

	let {
		document,
		form,
		onclose
	}: { document: DocumentDetail; form: FormAnswer; onclose: () => void } = $props();
	let errors = $derived(fieldsOf(form));
</script>

<section class="panel" aria-label="Credit it">
	<PanelForm
		action="?/credit"
		submit="Issue the credit note"
		danger
		done="The credit note is issued."
		first="[name=&quot;reason&quot;]"
		message={Object.keys(errors).length ? undefined : form?.message}
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
			value={typedOf(form, 'reason') ?? ''}
			error={errors.reason}
			placeholder="such as: work not done, wrong customer"
		/>
	</PanelForm>
</section>

<style>
	section {
		padding: 18px 20px;
		margin-bottom: 14px;
	}
</style>
