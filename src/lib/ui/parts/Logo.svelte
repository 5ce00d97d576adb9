<!-- The folding rule: two legs of tape, held by a bar. -->
<svg width="28" height="28" viewBox="0 0 32 32" aria-hidden="true" stroke-linejoin="round">
	<path d="M14.2 3.2 3 28.6l4.2 1.5L17.6 6.4z" fill="#f7bd0f" />
	<path d="M17.8 3.2 29 28.6l-4.2 1.5L14.4 6.4z" fill="#f7bd0f" />
	<path
		d="m6.2 24.4 1.9.7M8 20.4l1.1.4M9.7 16.5l1.9.7M11.4 12.6l1.1.4M25.8 24.4l-1.9.7M24 20.4l-1.1.4M22.3 16.5l-1.9.7M20.6 12.6l-1.1.4"
		stroke="#17212b"
		stroke-width="1.3"
	/>
	<path d="M9.6 20.6h12.8v3.4H8.2z" fill="#fffdf9" />
	<circle cx="16" cy="22.2" r="1.7" fill="#1f5d57" />
	<circle cx="16" cy="5.4" r="2.3" fill="#fffdf9" />
</svg>
