<!-- The keys of the sheet, while there is room for them. -->
<dl class="keys quiet">
	<div>
		<dt>Enter</dt>
		<dd>goes on</dd>
	</div>
	<div>
		<dt>Alt ↑ ↓</dt>
		<dd>moves the line</dd>
	</div>
	<div>
		<dt>Ctrl D</dt>
		<dd>copies it</dd>
	</div>
	<div>
		<dt>Ctrl Delete</dt>
		<dd>removes it</dd>
	</div>
	<div>
		<dt>Alt W</dt>
		<dd>shows its workings</dd>
	</div>
	<div>
		<dt>Ctrl Enter</dt>
		<dd>issues</dd>
	</div>
</dl>

<style>
	.keys {
		margin-top: 12px;
	}
	.keys div {
		display: grid;
		grid-template-columns: 110px 1fr;
		padding: 3px 0;
	}
	dt {
		font-family: var(--font-mono);
		color: var(--ink);
	}
</style>
