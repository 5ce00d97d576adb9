<!-- A form in a panel that opens over a page, with its buttons; done, it closes. -->
<script lang="ts">
	import type { ComponentProps, Snippet } from 'svelte';
	import Form from './Form.svelte';

	interface Props extends ComponentProps<typeof Form> {
		/** What the button says. */
		submit: string;
		danger?: boolean;
		onclose: () => void;
		class?: string;
		/** Further buttons. */
		more?: Snippet;
	}
	let {
		submit,
		danger = false,
		onclose,
		class: look = 'gap-3',
		children: inside,
		more,
		...rest
	}: Props = $props();
</script>

<Form class="grid {look}" keyed ondone={onclose} {...rest}>
	{#snippet children(frame)}
		{@render inside?.(frame)}
		<div class="col-span-full flex flex-wrap gap-2.5">
			<button class="button {danger ? 'danger' : 'filled'}">{submit}</button>
			{@render more?.()}
			<button type="button" class="button plain" onclick={onclose}>Close</button>
		</div>
	{/snippet}
</Form>
