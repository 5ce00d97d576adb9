<!-- The people of a customer, and the places where the work is. -->
<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Plus from '@lucide/svelte/icons/plus';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import CustomerFinder from './CustomerFinder.svelte';
	import Field from '../parts/Field.svelte';
	import type { CustomerValues } from './values';

	interface Props {
		contacts: CustomerValues['contacts'];
		sites: CustomerValues['sites'];
		/** Whose sites these are; null while that one is new. */
		of: number | null;
		/** Opened where there is something, and room for it. */
		unfold: boolean;
		errors: Record<string, string>;
	}
	let { contacts = $bindable(), sites = $bindable(), of, unfold, errors }: Props = $props();
</script>

<Fold label={`Contacts (${contacts.length})`} open={contacts.length > 0 && unfold}>
	{#each contacts as contact, index (index)}
		<div class="part border-l-3 border-l-(--hair) pl-3 grid gap-2 justify-items-start *:w-full">
			<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
				<Field
					label="Name"
					name="contacts.{index}.name"
					bind:value={contact.name}
					error={errors[`contacts.${index}.name`]}
				/>
				<Field
					label="What they get"
					list="contact-roles"
					placeholder="invoices, statements …"
					name="contacts.{index}.role"
					bind:value={contact.role}
					error={errors[`contacts.${index}.role`]}
				/>
				<Field
					label="E-mail"
					name="contacts.{index}.email"
					bind:value={contact.email}
					error={errors[`contacts.${index}.email`]}
				/>
				<Field
					label="Phone"
					name="contacts.{index}.phone"
					bind:value={contact.phone}
					error={errors[`contacts.${index}.phone`]}
				/>
			</div>
			<button type="button" class="button plain w-auto!" onclick={() => contacts.splice(index, 1)}
				><Trash2 size={16} aria-hidden="true" />Remove {contact.name || 'contact'}</button
			>
		</div>
	{/each}
	<button
		type="button"
		class="button plain"
		onclick={() => contacts.push({ name: '', role: '', email: '', phone: '' })}
		><Plus size={16} aria-hidden="true" />Contact</button
	>
</Fold>
<datalist id="contact-roles"
	><option value="invoices"></option><option value="statements"></option><option
		value="invoices and statements"
	></option><option value="site"></option></datalist
>
<Fold label={`Sites (${sites.length})`} open={sites.length > 0 && unfold}>
	{#each sites as site, index (index)}
		<div class="part border-l-3 border-l-(--hair) pl-3 grid gap-2 justify-items-start *:w-full">
			<Field
				label="Name"
				name="sites.{index}.name"
				bind:value={site.name}
				error={errors[`sites.${index}.name`]}
			/>
			<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
				<Field
					label="Address"
					name="sites.{index}.address"
					rows={2}
					bind:value={site.address}
					error={errors[`sites.${index}.address`]}
				/>
				<Field
					label="Access notes, for you"
					name="sites.{index}.accessNotes"
					rows={2}
					bind:value={site.accessNotes}
					error={errors[`sites.${index}.accessNotes`]}
				/>
			</div>
			<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
				<Field
					label="Who is there, such as the tenant"
					name="sites.{index}.contactName"
					bind:value={site.contactName}
					error={errors[`sites.${index}.contactName`]}
					hint="Hears of visits, never of bills."
				/>
				<Field
					label="Their e-mail"
					name="sites.{index}.contactEmail"
					inputmode="email"
					bind:value={site.contactEmail}
					error={errors[`sites.${index}.contactEmail`]}
				/>
				<Field
					label="Their phone"
					name="sites.{index}.contactPhone"
					type="tel"
					bind:value={site.contactPhone}
					error={errors[`sites.${index}.contactPhone`]}
				/>
			</div>
			<CustomerFinder
				label="The bill for work here goes to"
				placeholder="as for the customer"
				bind:value={site.billToId}
				except={of}
				error={errors[`sites.${index}.billToId`]}
			/>
			<button type="button" class="button plain w-auto!" onclick={() => sites.splice(index, 1)}
				><Trash2 size={16} aria-hidden="true" />Remove {site.name || 'site'}</button
			>
		</div>
	{/each}
	<button
		type="button"
		class="button plain"
		onclick={() =>
			sites.push({
				name: '',
				address: '',
				accessNotes: '',
				contactName: '',
				contactEmail: '',
				contactPhone: '',
				billToId: null
			})}><Plus size={16} aria-hidden="true" />Site</button
	>
</Fold>
