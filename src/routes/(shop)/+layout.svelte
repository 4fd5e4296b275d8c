<script lang="ts">
	import Part from '$lib/ui/Part.svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import KeysHelp from '$lib/ui/KeysHelp.svelte';
	import { useKeys } from '$lib/ui/keys';
	import WhoAmI from '$lib/ui/WhoAmI.svelte';
	import Wordmark from '$lib/ui/Wordmark.svelte';

	let { children, data } = $props();
	let help: KeysHelp;
	const LINKS = [
		{ href: '/', name: 'Floor' },
		{ href: '/decode', name: 'Decode' },
		{ href: '/tyres', name: 'Tyres' },
		{ href: '/library', name: 'Library' },
		{ href: '/closed', name: 'Signed' },
		{ href: '/figures', name: 'How it goes' }
	];
	useKeys({ n: () => void goto('/cases/new'), 'Shift+?': () => help.open() });
</script>

<header class="no-print flex min-h-16 flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule px-6 py-2">
	<Wordmark />
	<nav aria-label="Shop" class="order-3 flex flex-wrap gap-x-6 text-lg sm:order-none">
		{#each LINKS as { href, name } (href)}
			{@const here = href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href)}
			<a
				{href}
				aria-current={here ? 'page' : undefined}
				class="inline-flex min-h-11 items-center {here
					? 'border-b-4 border-ink pt-1 font-bold'
					: 'text-ink-2'}">{name}</a
			>
		{/each}
	</nav>
	<!-- On a phone the way to a new case stands beside the mark, who is signed in below the links. -->
	<div class="order-4 flex items-center sm:order-none sm:ml-auto">
		{#if data.member}<WhoAmI name="{data.shopName} · {data.member.name}" theme={data.theme} />{/if}
	</div>
	{#if data.member?.role !== 'viewer'}<a
			class="act order-2 ml-auto whitespace-nowrap sm:order-none sm:ml-0"
			href="/cases/new">New case</a
		>{/if}
</header>
<main class="mx-auto max-w-[1280px] px-6 py-7 sm:px-8">
	<Part what="This page">{@render children()}</Part>
</main>
<KeysHelp
	bind:this={help}
	keys={[
		['/', 'decode a code or find one by words'],
		['n', 'new case'],
		['?', 'these keys']
	]}
/>
