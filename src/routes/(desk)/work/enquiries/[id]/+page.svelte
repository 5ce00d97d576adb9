<script lang="ts">
	import { page } from '$app/state';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { mayDo } from '$lib/core/people/roles';
	import EnquiryFields from '$lib/ui/enquiries/EnquiryFields.svelte';
	import Files from '$lib/ui/files/Files.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
	let one = $derived(data.enquiry);
	let live = $derived(['open', 'answered', 'visit'].includes(one.state));
	let bill = $derived(mayDo(page.data.role ?? 'owner', 'bill'));
	const STATES = {
		open: 'Not answered',
		answered: 'Answered',
		visit: 'To look at',
		quoted: 'Quoted',
		job: 'A job',
		closed: 'Came to nothing'
	};
</script>

<svelte:head><title>{one.name} asks · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/lists/enquiries">Enquiries</a></p>
	<div class="mb-3.5 flex flex-wrap items-center gap-x-3.5 gap-y-2">
		<h1 class="wrap-anywhere">{one.name}: {data.title}</h1>
		<span class="tag">{STATES[one.state]}</span>
		<span class="flex-1"></span>
		{#if one.phone}<a class="button" href="tel:{one.phone.replace(/\s/g, '')}">Call</a>{/if}
		{#if live || one.state === 'quoted'}
			{#if live}<Form action="?/job"><button class="button">Make it a job</button></Form>{/if}
			{#if bill && data.quotes.length === 0}<Form action="?/quote"
					><button class="button filled">Quote it</button></Form
				>{/if}
		{/if}
	</div>
	<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,360px)] items-start gap-4 beside:grid-cols-1">
		<div class="grid gap-4">
			<section class="panel grid gap-3 px-5 py-4" aria-label="What they ask">
				<p class="text-[1.1rem] whitespace-pre-line wrap-anywhere">{one.what}</p>
				<dl class="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1">
					{#each [['Where', one.place], ['By when', one.wanted], ['E-mail', one.email], ['Phone', one.phone], ['How they found us', one.source], ...one.answers.map( ({ question, answer }): [string, string] => [question, answer] )] as [label, words], index (index)}
						{#if words}<dt class="quiet">{label}</dt>
							<dd class="wrap-anywhere">{words}</dd>{/if}
					{/each}
				</dl>
				{#if one.note}<p class="border-l-4 border-l-(--hair) pl-3 whitespace-pre-line">
						{one.note}
					</p>{/if}
				<p class="quiet">
					Came {displayMoment(one.createdAt)}{one.came === 'page' ? ' through your page' : ''}.
					{#if one.reason}Closed: {one.reason}.{/if}
				</p>
				<p class="flex flex-wrap gap-x-4">
					{#if data.customer}<a href="/customers/{data.customer.id}">{data.customer.name}</a>{/if}
					{#if data.job}<a href="/work/{data.job.id}">{data.job.number}</a>{/if}
					{#each data.quotes as quote (quote.id)}<a href="/work/quotes/{quote.id}"
							>{quote.number ?? 'Quote, a draft'}</a
						>{/each}
				</p>
				<Fold label="Change what was written down">
					<Form
						action="?/save"
						hidden={{ version: one.version }}
						done="Kept."
						class="grid gap-3 pt-1"
					>
						{#key one.version}<EnquiryFields start={one} questions={data.questions} />{/key}
						<div><button class="button">Keep it</button></div>
					</Form>
				</Fold>
			</section>
			<section class="panel px-5 py-4">
				<h2 class="mb-2">Photos and files</h2>
				<Files to="enquiry" id={one.id} files={data.files} />
			</section>
		</div>
		<aside class="grid gap-4">
			{#if live}
				<section class="panel grid gap-3 px-5 py-4">
					<h2>Look at it</h2>
					<Form action="?/visit" class="grid gap-3">
						<DateField label="On" name="day" />
						<Field label="At" name="from" placeholder="09:30" />
						<div><button class="button">Book the visit</button></div>
					</Form>
				</section>
				<section class="panel grid gap-1 px-5 py-4">
					<h2>Answer</h2>
					{#if one.email}<Fold label="By e-mail" open={one.state === 'open'}>
							<Form action="?/answer" keyed done="Answered." class="grid gap-3">
								<Field label="To" name="to" value={one.email} inputmode="email" />
								<Field label="Subject" name="subject" value={data.reply.subject} />
								<Field label="Message" name="text" rows={7} value={data.reply.text} />
								<div><button class="button">Send it</button></div>
							</Form>
						</Fold>{/if}
					{#if one.state === 'open'}<Form action="?/answered" done="Written down."
							><button class="button plain">I answered on the phone</button></Form
						>{/if}
				</section>
				<section class="panel grid gap-1 px-5 py-4">
					<Fold label="It comes to nothing">
						<Form
							action="?/close"
							class="grid gap-3"
							done="Closed; it is erased after twelve months."
							undo={{ action: '?/reopen', values: {} }}
						>
							<Field label="Why" name="reason" rows={2} />
							<div><button class="button">Close it</button></div>
						</Form>
					</Fold>
				</section>
			{:else if one.state === 'closed'}<section class="panel px-5 py-4">
					<Form action="?/reopen" done="It is open again."
						><button class="button">Open it again</button></Form
					>
				</section>{/if}
		</aside>
	</div>
</div>
