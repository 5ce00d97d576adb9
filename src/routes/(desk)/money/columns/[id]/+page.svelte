<script lang="ts">
	import { enhance } from '$app/forms';

	let { data, form } = $props();
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
</script>

<svelte:head><title>Columns of the statement · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>Is this what its columns hold?</h1>
	<p class="quiet">
		{data.read} rows can be read like this{data.unread ? `, ${data.unread} cannot` : ''}. It is
		asked once: files with these headings are known after that.
	</p>
	<form
		class="panel"
		method="post"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<div class="fields">
			{#each data.fields as { field, label } (field)}
				<label class="field"
					><span class="name">{label}</span><select
						class="box"
						name={field}
						aria-invalid={errors[field] ? 'true' : undefined}
					>
						<option value="">not there</option>
						{#each data.headings as heading, index (index)}<option
								value={String(index)}
								selected={data.layout[field] === index}>{heading || `column ${index + 1}`}</option
							>{/each}
					</select>{#if errors[field]}<span class="wrong">{errors[field]}</span>{/if}</label
				>
			{/each}
			<label class="field"
				><span class="name">Dates are written</span><select class="box" name="dates">
					<option value="dmy" selected={data.layout.dates === 'dmy'}>day, month, year</option>
					<option value="mdy" selected={data.layout.dates === 'mdy'}>month, day, year</option>
					<option value="ymd" selected={data.layout.dates === 'ymd'}>year, month, day</option>
				</select></label
			>
			<label class="field"
				><span class="name">Account, for you</span><input
					class="box"
					name="account"
					value="Business account"
				/></label
			>
		</div>
		<div class="scroll">
			<table>
				<thead
					><tr
						>{#each data.headings as heading, index (index)}<th>{heading}</th>{/each}</tr
					></thead
				>
				<tbody>
					{#each data.sample as cells, row (row)}<tr
							>{#each data.headings as _, index (index)}<td>{cells[index] ?? ''}</td>{/each}</tr
						>{/each}
				</tbody>
			</table>
		</div>
		<button class="button filled">Bring the lines in</button>
	</form>
</div>

<style>
	form {
		padding: 18px 20px;
		margin-top: 12px;
		display: grid;
		gap: 16px;
		justify-items: start;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
		gap: 10px 16px;
		width: 100%;
	}
	.scroll {
		overflow-x: auto;
		width: 100%;
	}
	table {
		border-collapse: collapse;
		font-size: 0.906rem;
	}
	th,
	td {
		text-align: left;
		padding: 5px 14px 5px 0;
		border-bottom: 1px solid var(--hair);
		white-space: nowrap;
	}
</style>
