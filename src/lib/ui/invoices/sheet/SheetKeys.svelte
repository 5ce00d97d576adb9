<!-- The keys of the sheet, while there is room for them. -->
<dl class="keys quiet mt-3 [&_div]:grid [&_div]:grid-cols-[110px_1fr] [&_div]:py-0.75 [&_div]:px-0">
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Enter</dt>
		<dd>goes on</dd>
	</div>
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Alt ↑ ↓</dt>
		<dd>moves the line</dd>
	</div>
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Ctrl D</dt>
		<dd>copies it</dd>
	</div>
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Ctrl Delete</dt>
		<dd>removes it</dd>
	</div>
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Alt W</dt>
		<dd>shows its workings</dd>
	</div>
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">Ctrl Enter</dt>
		<dd>issues</dd>
	</div>
</dl>
