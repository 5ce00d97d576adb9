<!-- The boxes of an enquiry; the owner's own questions follow the kind of work. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';

	interface Values {
		name: string;
		email: string;
		phone: string;
		place: string;
		what: string;
		wanted: string;
		source: string;
		workKindId: number | null;
		note: string;
	}
	interface Question {
		id: number;
		workKindId: number | null;
		question: string;
		kind: 'text' | 'number' | 'choice' | 'yesNo';
		unit: string;
		options: string[];
	}
	interface Props {
		start?: Partial<Values>;
		questions: readonly Question[];
		/** A stranger fills it in: no private note, and other words. */
		stranger?: boolean;
		kinds?: readonly { id: number; name: string }[];
	}
	let { start = {}, questions, stranger = false, kinds }: Props = $props();
	let kind = $state(untrack(() => String(start.workKindId ?? '')));
	let offered = $derived(
		kinds ?? (page.data.offers?.workKinds as { id: number; name: string }[]) ?? []
	);
	let asked = $derived(
		questions.filter(({ workKindId }) => workKindId === null || String(workKindId) === kind)
	);
	const SOURCES = [
		'recommended by a neighbour',
		'worked for them before',
		'the web',
		'a sign on the van',
		'an advertisement'
	];
</script>

<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] items-start gap-x-4.5 gap-y-3">
	<Field
		label={stranger ? 'Your name' : 'Who asks'}
		name="name"
		value={start.name ?? ''}
		autocomplete={stranger ? 'name' : 'off'}
		maxlength={200}
	/>
	<Field
		label={stranger ? 'Your phone' : 'Phone'}
		name="phone"
		type="tel"
		value={start.phone ?? ''}
		autocomplete={stranger ? 'tel' : 'off'}
		maxlength={50}
	/>
	<Field
		label={stranger ? 'Your e-mail' : 'E-mail'}
		name="email"
		type="email"
		value={start.email ?? ''}
		autocomplete={stranger ? 'email' : 'off'}
		maxlength={300}
	/>
	<Field
		label={stranger ? 'Where is the work?' : 'Where'}
		name="place"
		value={start.place ?? ''}
		autocomplete={stranger ? 'street-address' : 'off'}
		maxlength={1000}
	/>
	{#if offered.length}<Choice label="Kind of work" name="workKindId" bind:value={kind}>
			<option value="">{stranger ? 'I am not sure' : 'none in particular'}</option>
			{#each offered as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
		</Choice>{/if}
	<Field
		label={stranger ? 'By when would you like it done?' : 'By when'}
		name="wanted"
		value={start.wanted ?? ''}
		maxlength={200}
	/>
	<div class="col-span-full">
		<Field
			label={stranger ? 'What is it about?' : 'What it is about'}
			name="what"
			rows={4}
			value={start.what ?? ''}
			maxlength={5000}
		/>
	</div>
	{#each asked as { id, question, kind: sort, unit, options } (id)}
		{#if sort === 'choice' || sort === 'yesNo'}
			<Choice label={question} name="answer.{id}" value="">
				<option value=""></option>
				{#each sort === 'yesNo' ? ['yes', 'no'] : options as one (one)}<option value={one}
						>{one}</option
					>{/each}
			</Choice>
		{:else}<Field
				label="{question}{unit ? `, ${unit}` : ''}"
				name="answer.{id}"
				{...sort === 'number' ? { inputmode: 'decimal' } : {}}
				maxlength={2000}
			/>{/if}
	{/each}
	<div class="field">
		<label class="name" for="source"
			>{stranger ? 'How did you find us?' : 'How they found us'}</label
		>
		<input
			class="box"
			id="source"
			name="source"
			list="sources"
			maxlength="200"
			autocomplete="off"
			value={start.source ?? ''}
		/>
		<datalist id="sources"
			>{#each SOURCES as one (one)}<option value={one}></option>{/each}</datalist
		>
	</div>
	{#if !stranger}<div class="col-span-full">
			<Field
				label="Note for yourself; they never see it"
				name="note"
				rows={2}
				value={start.note ?? ''}
				maxlength={5000}
			/>
		</div>{/if}
</div>
