<script lang="ts">
	import Part from '$lib/ui/Part.svelte';
	import { afterNavigate, goto } from '$app/navigation';
	import { page } from '$app/state';
	import KeysHelp from '$lib/ui/KeysHelp.svelte';
	import { useKeys } from '$lib/ui/keys';
	import WhoAmI from '$lib/ui/WhoAmI.svelte';
	import Wordmark from '$lib/ui/Wordmark.svelte';

	let { children, data } = $props();
	let help: KeysHelp;
	let menu = $state<HTMLDetailsElement>();
	afterNavigate(() => menu?.removeAttribute('open'));
	const LINKS = [
		{ href: '/', name: 'Open cases' },
		{ href: '/decode', name: 'Decode' },
		{ href: '/customers', name: 'Customers' },
		{ href: '/tyres', name: 'Tyres' },
		{ href: '/library', name: 'Library' },
		{ href: '/closed', name: 'Closed cases' },
		{ href: '/figures', name: 'Shop figures' }
	];
	useKeys({ n: () => void goto('/cases/new'), 'Shift+?': () => help.open() });
</script>

{#snippet links()}
	{#each LINKS as { href, name } (href)}
		{@const here = href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href)}
		<a
			{href}
			aria-current={here ? 'page' : undefined}
			class="inline-flex min-h-11 items-center {here ? 'border-b-4 border-ink pt-1 font-bold' : 'text-ink-2'}"
			>{name}</a
		>
	{/each}
{/snippet}
{#snippet who()}
	{#if data.member}<WhoAmI name="{data.shopName} · {data.member.name}" theme={data.theme} />{/if}
{/snippet}

<a class="skip no-print" href="#main">To the page</a>
<header class="no-print flex min-h-16 items-center gap-x-6 border-b border-rule px-6 py-2">
	<Wordmark />
	<nav aria-label="Shop" class="flex flex-wrap gap-x-6 text-lg max-lg:hidden">{@render links()}</nav>
	<!-- Where there is little room the ways and who is signed in are folded: the page itself begins at once. -->
	<details bind:this={menu} class="ml-auto lg:hidden">
		<summary class="act-quiet list-none">Menu</summary>
		<div class="absolute inset-x-0 z-30 mt-2 border-y border-ink bg-base-100 px-6 py-3">
			<nav aria-label="Shop, folded" class="flex flex-col items-start text-lg">{@render links()}</nav>
			<div class="mt-2 border-t border-rule pt-2">{@render who()}</div>
		</div>
	</details>
	<div class="ml-auto flex items-center max-lg:hidden">{@render who()}</div>
	{#if data.member?.role !== 'viewer'}<a class="act whitespace-nowrap" href="/cases/new">New case</a>{/if}
</header>
<main id="main" tabindex="-1" class="mx-auto max-w-[1280px] px-6 py-7 sm:px-8">
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
