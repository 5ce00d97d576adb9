<svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
	<path d="M3 19a10 10 0 0 1 20 0" fill="none" stroke="#f7bd0f" stroke-width="3" />
	<path d="M13 19 19 8" stroke="#fff" stroke-width="2.4" />
	<circle cx="13" cy="19" r="2.6" fill="#fff" />
</svg>
