<!-- What has to be there before the work can be done: expected, and there. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import DateField from '../parts/DateField.svelte';
	import Field from '../parts/Field.svelte';
	import LateFold from '../parts/LateFold.svelte';
	import Form from '../parts/Form.svelte';

	interface Props {
		materials: readonly {
			id: number;
			what: string;
			expectedOn: string | null;
			hereOn: string | null;
		}[];
		/** Materials are among what was agreed. */
		agreed: boolean;
		today: string;
	}
	let { materials, agreed, today }: Props = $props();
	let awaited = $derived(materials.filter(({ hereOn }) => hereOn === null).length);
</script>

<section class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full">
	<h2>
		To have there{materials.length
			? awaited
				? `: ${awaited} of ${materials.length} not there yet`
				: ': all of it is there'
			: ''}
	</h2>
	{#if materials.length}<ul class="grid">
			{#each materials as one (one.id)}<li
					class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-b-(--hair) py-1.5 last:border-b-0"
				>
					<span class="min-w-40 flex-1 wrap-anywhere"
						>{one.what}<span
							class="block"
							class:quiet={one.hereOn || !one.expectedOn || one.expectedOn >= today}
							class:wrong={!one.hereOn && one.expectedOn && one.expectedOn < today}
							>{one.hereOn
								? `there since ${displayDate(one.hereOn)}`
								: one.expectedOn
									? `${one.expectedOn < today ? 'was to come' : 'to come'} ${displayDate(one.expectedOn)}`
									: 'no day yet'}</span
						></span
					>
					<span class="flex items-center gap-2">
						<Form action="?/material" hidden={{ id: one.id, to: one.hereOn ? 'awaited' : 'here' }}
							><button class="button"
								>{one.hereOn ? 'Not there after all' : 'It is there'}<span class="sr-only"
									>: {one.what}</span
								></button
							></Form
						>
						<Form action="?/material" hidden={{ id: one.id, to: 'gone' }}
							><button class="button plain">Remove<span class="sr-only">: {one.what}</span></button
							></Form
						>
					</span>
				</li>{/each}
		</ul>{/if}
	<LateFold label="Put something down">
		<Form action="?/addMaterial" keyed reset class="flex flex-wrap items-end gap-3">
			<div class="min-w-50 flex-1"><Field label="What" name="what" maxlength={200} /></div>
			<DateField label="To come on, if known" name="expectedOn" />
			<button class="button">Put it down</button>
		</Form>
		{#if agreed}<Form action="?/materialsAsAgreed" class="mt-2"
				><button class="button plain">All materials that were agreed</button></Form
			>{/if}
	</LateFold>
</section>
