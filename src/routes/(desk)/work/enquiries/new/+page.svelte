<script lang="ts">
	import EnquiryFields from '$lib/ui/enquiries/EnquiryFields.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
</script>

<svelte:head><title>New enquiry · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<p class="quiet"><a href="/lists/enquiries">Enquiries</a></p>
	<h1 class="mb-3">New enquiry</h1>
	<Form class="panel grid gap-4 py-4.5 px-5" keyed first="[name=name]">
		<EnquiryFields questions={data.questions} />
		<div><button class="button filled">Keep it</button></div>
	</Form>
</div>
