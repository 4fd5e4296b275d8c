<script lang="ts">
	import { page } from '$app/state';
	import Lock from '@lucide/svelte/icons/lock';
	import Moon from '@lucide/svelte/icons/moon';
	import Sun from '@lucide/svelte/icons/sun';
	import LogOut from '@lucide/svelte/icons/log-out';
	import { toast } from 'svelte-sonner';
	import { outbox } from '../away/outbox.svelte';

	/** Who is signed in, day or night, a screen that is left for a moment, and the way out. */
	let { name, theme }: { name: string; theme: 'day' | 'bay' } = $props();
	const other = $derived(theme === 'day' ? 'bay' : 'day');
	const here = $derived(encodeURIComponent(page.url.pathname + page.url.search));
	/** Sent in vain, it would leave the page for the browser’s own word that there is no network. */
	function onlyWithServer(event: SubmitEvent) {
		if (!outbox.away) return;
		event.preventDefault();
		toast.info('The server is out of reach: that can be done once it answers.');
	}
	const ICON = 'flex size-11 cursor-pointer items-center justify-center';
</script>

<div class="flex items-center gap-1 text-ink-2">
	<a class="inline-flex min-h-11 items-center pr-2 underline decoration-rule underline-offset-4" href="/me"
		>{name}</a
	>
	<form method="POST" action="/preferences?/theme" onsubmit={onlyWithServer}>
		<input type="hidden" name="theme" value={other} />
		<input type="hidden" name="back" value={page.url.pathname} />
		<button class={ICON} aria-label={theme === 'day' ? 'Night colours for the bay' : 'Day colours'}>
			{#if theme === 'day'}<Moon size={20} aria-hidden="true" />{:else}<Sun
					size={20}
					aria-hidden="true"
				/>{/if}
		</button>
	</form>
	<form method="POST" action="/locked?/lock&back={here}" onsubmit={onlyWithServer}>
		<button class={ICON} aria-label="Lock this screen"><Lock size={20} aria-hidden="true" /></button>
	</form>
	<form method="POST" action="/sign-in?/out" onsubmit={onlyWithServer}>
		<button class={ICON} aria-label="Sign out"><LogOut size={20} aria-hidden="true" /></button>
	</form>
</div>
