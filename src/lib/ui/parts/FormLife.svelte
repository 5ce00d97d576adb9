<!-- What makes a form answer without leaving the page. Loaded when somebody first touches it. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { superForm } from 'sveltekit-superforms/client';
	import type { FormState } from './frame';

	interface Props {
		form: HTMLFormElement;
		/** As it stands, with the messages it came with. */
		state: FormState;
		/** Sent while somebody types: the newest counts, and the cursor stays. */
		live: boolean;
		onalive: () => void;
		onsubmit: (submitter: HTMLElement | null) => void;
		onchange: (errors: FormState['errors'], message: string) => void;
		ondone: (answer: Record<string, unknown>) => void;
		onend: () => void;
	}
	let { form, state, live, onalive, onsubmit, onchange, ondone, onend }: Props = $props();

	// It is done once the page shows what it did, or once it shows this form no more.
	let answer: Record<string, unknown> | null = null;
	function settle() {
		const done = answer;
		answer = null;
		if (done) ondone(done);
	}

	const { enhance, errors, message, submitting } = superForm<Record<string, unknown>, string>(
		untrack(() => state),
		untrack(() => ({
			resetForm: false,
			taintedMessage: null,
			warnings: { duplicateId: false },
			errorSelector: '[aria-invalid="true"]',
			autoFocusOnError: !live,
			scrollToError: live ? ('off' as const) : ('auto' as const),
			multipleSubmits: live ? ('abort' as const) : ('prevent' as const),
			clearOnSubmit: 'errors-and-message' as const,
			onSubmit: ({ submitter }) => onsubmit(submitter),
			onUpdate: ({ form, result }) => {
				if (result.type === 'success' && form.valid)
					answer = (result.data ?? {}) as Record<string, unknown>;
			},
			onUpdated: settle,
			onError: () => {
				$message =
					'This could not be done just now. What you typed is still here: try again in a minute.';
			}
		}))
	);
	$effect(() => onchange($errors as FormState['errors'], $message ?? ''));
	$effect(() => {
		if (!$submitting) onend();
	});
	onMount(() => {
		const enhanced = enhance(form);
		onalive();
		return () => {
			enhanced.destroy?.();
			// Not while the page is being taken down: what follows may draw something.
			setTimeout(settle);
		};
	});
</script>
