<script lang="ts">
	import { page } from '$app/state';
	import Moon from '@lucide/svelte/icons/moon';
	import Sun from '@lucide/svelte/icons/sun';
	import LogOut from '@lucide/svelte/icons/log-out';

	/** Who is signed in, day or night, and the way out. */
	let { name, theme }: { name: string; theme: 'day' | 'bay' } = $props();
	const other = $derived(theme === 'day' ? 'bay' : 'day');
</script>

<div class="flex items-center gap-1 text-ink-2">
	<span class="pr-2 whitespace-nowrap">{name}</span>
	<form method="POST" action="/preferences?/theme">
		<input type="hidden" name="theme" value={other} />
		<input type="hidden" name="back" value={page.url.pathname} />
		<button
			class="flex size-11 cursor-pointer items-center justify-center"
			aria-label={theme === 'day' ? 'Night colours for the bay' : 'Day colours'}
		>
			{#if theme === 'day'}<Moon size={20} aria-hidden="true" />{:else}<Sun
					size={20}
					aria-hidden="true"
				/>{/if}
		</button>
	</form>
	<form method="POST" action="/sign-in?/out">
		<button class="flex size-11 cursor-pointer items-center justify-center" aria-label="Sign out"
			><LogOut size={20} aria-hidden="true" /></button
		>
	</form>
</div>
