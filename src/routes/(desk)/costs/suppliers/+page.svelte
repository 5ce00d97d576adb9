<script lang="ts">
	import { CATEGORY_NAMES, COST_CATEGORIES } from '$lib/core/costs/types';
	import { displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let changing = $state<number | null>(null);
</script>

<svelte:head><title>Suppliers · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<p class="quiet"><a href="/lists/costs">Costs</a></p>
	<h1 class="mb-3">Suppliers</h1>
	{#if data.suppliers.length === 0}
		<p class="panel py-4 px-4.5">
			Whoever you buy from stands here, once a <a href="/costs/new">cost</a> names them.
		</p>
	{:else}
		<ul class="panel grid">
			{#each data.suppliers as supplier (supplier.id)}
				<li class="border-b border-(--hair) last:border-b-0 py-2.5 px-4.5">
					{#if changing === supplier.id}
						<Form
							action="?/save"
							hidden={{ id: supplier.id }}
							done="Kept."
							ondone={() => (changing = null)}
							class="grid grid-cols-[repeat(auto-fit,minmax(200px,1fr))] items-end gap-3"
						>
							<Field label="Name" name="name" value={supplier.name} maxlength={200} />
							<Field
								label="VAT number"
								name="vatNumber"
								value={supplier.vatNumber}
								maxlength={20}
							/>
							<Choice label="Usually for" name="category" value={supplier.category ?? ''}>
								<option value="">nothing in particular</option>
								{#each COST_CATEGORIES as category (category)}<option value={category}
										>{CATEGORY_NAMES[category].name}</option
									>{/each}
							</Choice>
							<Tick name="subcontractor" checked={Boolean(supplier.subcontractor)}
								>Does construction work for you</Tick
							>
							<span class="flex gap-2">
								<button class="button filled">Keep</button>
								<button class="button" type="button" onclick={() => (changing = null)}
									>Leave it</button
								>
							</span>
						</Form>
					{:else}
						<div class="flex flex-wrap items-center justify-between gap-x-4">
							<span class="grid">
								<a
									class="font-semibold"
									href="/lists/costs?f=supplier.has.{encodeURIComponent(supplier.name)}"
									>{supplier.name}</a
								>
								<span class="quiet"
									>{[
										`${counted(supplier.bills, 'cost')}, ${displayPounds(supplier.spent)}`,
										supplier.subcontractor ? 'construction work' : '',
										supplier.archivedAt === null ? '' : 'archived'
									]
										.filter(Boolean)
										.join(' · ')}</span
								>
							</span>
							<span class="flex gap-1">
								<button
									class="button plain with-scripts"
									type="button"
									aria-label="Change {supplier.name}"
									onclick={() => (changing = supplier.id)}>Change</button
								>
								<Form
									action={supplier.archivedAt === null ? '?/archive' : '?/restore'}
									hidden={{ id: supplier.id }}
									undo={{
										action: supplier.archivedAt === null ? '?/restore' : '?/archive',
										values: { id: supplier.id }
									}}
									done={supplier.archivedAt === null
										? `${supplier.name} is offered no more.`
										: `${supplier.name} can be chosen again.`}
									><button
										class="button plain"
										aria-label="{supplier.archivedAt === null
											? 'Archive'
											: 'Take back'} {supplier.name}"
										>{supplier.archivedAt === null ? 'Archive' : 'Take back'}</button
									></Form
								>
							</span>
						</div>
					{/if}
				</li>
			{/each}
		</ul>
	{/if}
</div>
