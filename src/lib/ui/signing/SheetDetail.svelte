<!-- A finished job sheet: the paper, who signed it, and where it goes. -->
<script lang="ts">
	import Link2 from '@lucide/svelte/icons/link-2';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import type { DocumentView } from '$lib/core/documents/viewTypes';
	import Paper from '../invoices/Paper.svelte';
	import Field from '../parts/Field.svelte';
	import Form from '../parts/Form.svelte';
	import { notices } from '../parts/notices.svelte';

	interface Props {
		id: number;
		number: string;
		job: { number: string; title: string };
		back: string;
		view: DocumentView;
		link: string;
		signed: { name: string; position: string; at: number; way: 'phone' | 'page' } | null;
		sending: { to: string; subject: string; text: string };
		/** Where it went already. */
		sent: readonly { to: string; at: number; state: string }[];
		just: string;
	}
	let { id, number, job, back, view, link, signed, sending, sent, just }: Props = $props();
	async function copy() {
		try {
			await navigator.clipboard.writeText(link);
			notices.say('The link is copied.');
		} catch {
			notices.say('Copying is not allowed here. Mark the link and copy it by hand.');
		}
	}
</script>

<svelte:head><title>Job sheet {number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href={back}>{job.number} {job.title}</a></p>
	<div class="mb-3.5 flex flex-wrap items-center gap-x-3.5 gap-y-2">
		<h1>Job sheet <span class="mono">{number}</span></h1>
		<span class="tag" data-state={signed ? 'paid' : 'open'}>{signed ? 'Signed' : 'Not signed'}</span
		>
		<span class="flex-1"></span>
		{#if !signed}<a class="button filled" href="/work/sheets/{id}/sign">Have it signed</a>{/if}
		<a class="button" href="/work/sheets/{id}/pdf">PDF</a>
		<a class="button" href={back}>Back to the job</a>
	</div>
	{#if just === 'signed' && signed}<p
			class="panel mb-3.5 border-l-6 border-l-(--verdigris) px-4.5 py-3"
			role="status"
		>
			{signed.name} signed it.
		</p>{/if}
	<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,360px)] items-start gap-4 beside:grid-cols-1">
		<div>
			<Paper
				{view}
				logo={view.look.logo && `/settings/letterheads/logo/${view.look.logo}`}
				photo={(photo) => `/files/${photo}`}
			/>
		</div>
		<aside class="grid gap-4 beside:order-first">
			<section class="panel grid gap-3 px-5 py-4">
				<h2>Send it</h2>
				{#each sent as one, index (index)}<p class="quiet">
						{one.state === 'sent'
							? 'Sent'
							: one.state === 'failed'
								? 'Not delivered'
								: 'On its way'}
						to {one.to}, {displayMoment(one.at)}
					</p>{/each}
				<Form action="?/send" keyed done="It is on its way." class="grid gap-3">
					<Field label="To" name="to" value={sending.to} inputmode="email" autocomplete="off" />
					<Field label="Subject" name="subject" value={sending.subject} />
					<Field
						label={'Message; {link} becomes the link'}
						name="text"
						rows={8}
						value={sending.text}
					/>
					<div>
						<button class="button" class:filled={signed && sent.length === 0}
							>Send it with the PDF</button
						>
					</div>
				</Form>
			</section>
			<section class="panel grid gap-3 px-5 py-4">
				<h2>Its page</h2>
				<p class="mono wrap-anywhere">{link}</p>
				<p class="quiet">
					{signed
						? 'Whoever has the link sees it.'
						: 'Whoever has the link sees it, and can sign it.'}
				</p>
				<div>
					<button class="button" type="button" onclick={copy}
						><Link2 size={18} aria-hidden="true" />Copy the link</button
					>
				</div>
			</section>
		</aside>
	</div>
</div>
